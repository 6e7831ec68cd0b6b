import { useState } from 'react';
import type { Housing, Job, Setting } from '../api/client';
import { useKeys } from '../app/keys';
import { WorkingLink } from '../app/WorkingLink';
import { EndView } from '../drawing/EndView';
import { GapBar } from '../drawing/GapBar';
import { Section } from '../drawing/Section';
import { GasketStack } from '../drawing/GasketStack';
import { TableMap } from '../drawing/TableMap';
import { TriesPlot } from '../drawing/TriesPlot';
import { FindZero } from './FindZero';
import { TryForm } from './TryForm';
import { useChange } from './useJob';

/** The picture on the left, the move in one large sentence on the right, the tries below it. */
export function SetGap({ job }: { job: Job }) {
  const setting = job.setting;
  if (!setting) {
    return (
      <div className="stage">
        <p className="problem">
          {job.choice.sentence} <WorkingLink working={job.choice.working} />
        </p>
        {job.choice.map && <TableMap map={job.choice.map} />}
      </div>
    );
  }
  const { housing, gaskets } = setting;
  const needsZero = housing !== null && !housing.zero_found && !job.signed;
  return (
    <div className="stage drawing-and-pad">
      <section aria-label="Picture">
        {housing && (
          <EndView housing={housing} turning={!needsZero && housing.target_deg !== housing.position_deg} />
        )}
        {gaskets && <GasketStack gaskets={gaskets} unit={job.unit} />}
        {!housing && !gaskets && (
          <Section
            drawing={job.drawing}
            features={job.features.filter((f) => f.kind === 'gap')}
            selected=""
            onSelect={() => undefined}
          />
        )}
        {housing && <HousingNotes job={job} housing={housing} />}
      </section>
      <section className="set-pad" aria-label="The move">
        {needsZero ? <FindZero job={job} housing={housing} /> : <Move job={job} setting={setting} />}
      </section>
    </div>
  );
}

function Move({ job, setting }: { job: Job; setting: Setting }) {
  const last = setting.tries.at(-1);
  return (
    <>
      <p className="quiet">
        Window {setting.low} to {setting.high}, aim for {setting.target} {job.unit}.
      </p>
      <p className={`headline${setting.right ? ' right' : ''}`} aria-live="polite">
        {setting.headline}
      </p>
      <p className="details">
        {setting.details.join(' ')} <WorkingLink working={setting.working} />
        {setting.hot && !setting.hot.touches && (
          <>
            {' '}
            · hot <b>{setting.hot.text}</b> <WorkingLink working={setting.hot.working} />
          </>
        )}
      </p>
      <GapBar
        low={{ mm: setting.low_mm, text: setting.low }}
        high={{ mm: setting.high_mm, text: setting.high }}
        targetMm={setting.target_mm}
        measured={last ? { mm: last.gap_mm, expandedMm: last.expanded_mm, text: last.gap } : null}
      />
      {setting.hot?.touches && (
        <p className="problem" role="alert">
          Predicted hot: <b>{setting.hot.text}</b>. Contact: this blocks sign-off.{' '}
          <WorkingLink working={setting.hot.working} />
        </p>
      )}
      {setting.surprise && <p className="surprise">{setting.surprise}</p>}
      <Tries job={job} setting={setting} />
      {setting.tries.length > 1 && <TriesPlot setting={setting} unit={job.unit} />}
      {!job.signed && <TryForm key={setting.tries.length} job={job} setting={setting} />}
    </>
  );
}

const TRIES_SHOWN = 4;

function Tries({ job, setting }: { job: Job; setting: Setting }) {
  const [all, setAll] = useState(false);
  if (!setting.tries.length) return null;
  const shown = all ? setting.tries : setting.tries.slice(-TRIES_SHOWN);
  const hidden = setting.tries.length - shown.length;
  return (
    <table className="ruled tries">
      <caption className={hidden ? '' : 'visually-hidden'}>
        {hidden ? (
          <button type="button" className="fold" onClick={() => setAll(true)}>
            {hidden} earlier tries ▾
          </button>
        ) : (
          'Tries at the gap'
        )}
      </caption>
      <thead>
        <tr>
          <th scope="col">Try</th>
          <th scope="col">Set by</th>
          <th scope="col">Checked</th>
          <th scope="col">Gap</th>
          <th scope="col">Next</th>
        </tr>
      </thead>
      <tbody>
        {shown.map((t) => (
          <tr key={t.number}>
            <th scope="row">{t.number}</th>
            <td>{t.set_by}</td>
            <td>{t.checked}</td>
            <td className="number">
              <WorkingLink working={t.working}>{`${t.gap} ${job.unit}`}</WorkingLink>
            </td>
            <td>{t.next}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function HousingNotes({ job, housing }: { job: Job; housing: Housing }) {
  const zero = useChange('zero', job.number);
  const tape = `/api/jobs/${job.number}/tape.pdf?unit=${job.unit}`;
  useKeys([{ key: 't', label: 'print the tape', run: () => window.open(tape) }]);
  return (
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
      {housing.zero_found && `Zero by “${housing.school}”, play ${housing.lash}.`}
      {housing.lash_seen && housing.lash_seen !== housing.lash && !job.signed && (
        <button
          type="button"
          className="working-link"
          onClick={() => zero.mutate({ school: housing.school, lash: housing.lash_seen ?? '' })}
        >
          The last change of direction shows a play of {housing.lash_seen}: count with it
        </button>
      )}
    </p>
  );
}
