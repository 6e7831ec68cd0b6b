import { newId } from '../../api/client';
import { useKeys } from '../../app/keys';
import { WorkingLink } from '../../app/WorkingLink';
import { StrikeOut } from '../job/StrikeOut';
import { useChange } from '../job/useJob';
import type { MeansProps } from './kinds';

/** The tape, the sheet against itself, and how zero and the play stand. */
export function HousingNotes({ job, setting, view: housing }: MeansProps<'housing'>) {
  const zero = useChange('zero', job.number);
  const tape = `/api/jobs/${job.number}/tape.pdf?unit=${job.unit}`;
  useKeys([{ key: 't', label: 'print the tape', run: () => window.open(tape) }]);
  return (
    <>
      <p className="quiet">
        <a className="tool print-tape" href={tape} target="_blank" rel="noreferrer">
          Print the tape
        </a>{' '}
        Seen from the shaft end. Housing Ø {housing.diameter}, lead {housing.lead}: {housing.per_step}.{' '}
        {housing.check && (
          <span className={housing.check_agrees ? '' : 'warning'}>
            {housing.check} {housing.check_working && <WorkingLink working={housing.check_working} />}{' '}
          </span>
        )}
        {housing.zero_found &&
          `Zero by “${housing.school}”${housing.school === housing.prescribed ? ', as the sheet says' : `, though the sheet says “${housing.prescribed}”`}, play ${housing.lash}. ${housing.lash_does}`}
        {housing.lash_seen && housing.lash_seen !== housing.lash && !job.signed && (
          <button
            type="button"
            className="working-link"
            onClick={() =>
              zero.mutate({
                id: newId(),
                school: housing.school,
                lash: housing.lash_seen ?? '',
                lash_arc: '',
              })
            }
          >
            The last change of direction shows a play of {housing.lash_seen}: count with it
          </button>
        )}
      </p>
      {setting.zero && (
        <StrikeOut
          job={job}
          kind="zero"
          record={setting.zero}
          what="zero"
          warns="Every try from it goes with it."
        >
          strike this zero out
        </StrikeOut>
      )}
    </>
  );
}
