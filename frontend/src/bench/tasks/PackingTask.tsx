import type { Packing } from '../../api/client';
import { Lines } from '../../app/Lines';
import { JointEnds } from '../../drawing/JointEnds';

/** Rings to cut, and where their joints go. */
export function PackingTask({ view: packing }: { view: Packing }) {
  return (
    <section aria-label="Rings and joints">
      <h2>Rings and joints</h2>
      <JointEnds packing={packing} />
      <p className="quiet">Joints {packing.school}. Gland square, nuts by hand and even.</p>
      <Lines lines={packing.lines} />
    </section>
  );
}
