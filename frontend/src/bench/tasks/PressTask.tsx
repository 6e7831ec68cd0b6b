import type { Press } from '../../api/client';
import { Lines } from '../../app/Lines';

/** A press fit: what the sizes come to before it is pressed. */
export function PressTask({ view: press }: { view: Press }) {
  return (
    <section aria-label={`${press.name}, press fit`}>
      <h2>{press.name}, press fit</h2>
      {press.how && <p className="quiet">{press.how}</p>}
      <Lines lines={press.lines} />
    </section>
  );
}
