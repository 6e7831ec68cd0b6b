import type { Job } from '../api/client';
import { GapSummary } from './GapSummary';
import { Steps } from './Steps';

/** Before power: it turns freely by hand. Then guards, rotation, running in. */
export function Prove({ job }: { job: Job }) {
  return (
    <div className="stage two-columns">
      <Steps job={job} stage="prove" />
      <section aria-label="The gap as set">
        <p className="kicker">End clearance as set</p>
        <GapSummary job={job} />
        <p className="quiet">
          Packing: gland at most one eighth of a turn at a time, evenly; a few drops a minute for life.
        </p>
      </section>
    </div>
  );
}
