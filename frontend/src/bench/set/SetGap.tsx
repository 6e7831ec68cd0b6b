import { useState } from 'react';
import type { Job, MeansView, Setting } from '../../api/client';
import { useKeys } from '../../app/keys';
import { Lines } from '../../app/Lines';
import { capital } from '../../app/words';
import { WorkingLink } from '../../app/WorkingLink';
import { GapBar } from '../../drawing/GapBar';
import { TableMap } from '../../drawing/TableMap';
import { TriesPlot } from '../../drawing/TriesPlot';
import { BuildTasks } from '../build/BuildTasks';
import { pagesOf } from '../build/buildPages';
import { Gaps } from './Gaps';
import { partsOf } from '../means';
import type { MeansKind, MeansProps, ViewOf } from '../means/kinds';
import { StageTasks } from '../steps/StageTasks';
import { standing } from '../job/standing';
import { Tries } from './Tries';
import { TryForm } from './TryForm';

type At = 'gap' | 'mesh' | 'steps';

/** Which of the gaps is set, or the steps that are done at Set: what setting took apart, and what comes after the check. */
export function SetGap({ job }: { job: Job }) {
  const steps = job.steps.filter((s) => s.stage === 'set');
  const open = steps.filter((s) => s.by === null).length;
  const [at, setAt] = useState<At>(job.setting?.right && job.mesh?.right === false ? 'mesh' : 'gap');
  const order = orderOf(job, steps.length);
  const next = order[(order.indexOf(at) + 1) % order.length] ?? 'gap';
  useKeys(
    order.length > 1 ? [{ key: 'm', label: next === 'steps' ? 'steps' : 'gap', run: () => setAt(next) }] : [],
  );
  const tabs = order.length > 1 && <Tabs job={job} order={order} at={at} open={open} onAt={setAt} />;
  if (at === 'steps' && steps.length > 0) {
    return (
      <div className="set-steps">
        {tabs}
        <StageTasks
          job={job}
          stage="set"
          pages={pagesOf(job, steps)}
          show={(page) => <BuildTasks job={job} page={page} />}
        />
      </div>
    );
  }
  return <Gap job={job} tabs={tabs} atMesh={at === 'mesh'} onSteps={open ? () => setAt('steps') : null} />;
}

/** What there is to set, in its order. */
function orderOf(job: Job, steps: number): At[] {
  const order: At[] = ['gap'];
  if (job.mesh) order.push('mesh');
  if (steps) order.push('steps');
  return order;
}

interface TabsProps {
  job: Job;
  order: At[];
  at: At;
  /** How many steps at Set are to be done. */
  open: number;
  onAt: (at: At) => void;
}

function Tabs({ job, order, at, open, onAt }: TabsProps) {
  return (
    <div className="which-gap" role="group" aria-label="What is set">
      {order.map((one) => (
        <button key={one} type="button" className="tool" aria-pressed={one === at} onClick={() => onAt(one)}>
          {one === 'steps' ? `Steps at Set${open ? `, ${open} to do` : ', done'}` : tabOf(job, one)}
        </button>
      ))}
    </div>
  );
}

function tabOf(job: Job, one: 'gap' | 'mesh'): string {
  const setting = one === 'mesh' ? job.mesh : job.setting;
  return `${capital(setting?.name ?? '')}${setting?.right ? ', right' : ''}`;
}

interface GapProps {
  job: Job;
  tabs: React.ReactNode;
  atMesh: boolean;
  /** To the steps that are open at Set; null where none is. */
  onSteps: (() => void) | null;
}

/** The picture on the left, the move in one large sentence on the right, the tries below it. */
function Gap({ job, tabs, atMesh, onSteps }: GapProps) {
  const { setting, mesh } = job;
  if (!setting) {
    return (
      <div className="stage">
        {job.choice.target && <p className="lead">Nothing is set in this job.</p>}
        <p className={job.choice.target ? 'quiet' : 'problem'}>
          {job.choice.sentence} <WorkingLink working={job.choice.working} />
        </p>
        {job.choice.map && <TableMap map={job.choice.map} />}
      </div>
    );
  }
  const shown = atMesh && mesh ? mesh : setting;
  return (
    <div className="stage drawing-and-pad">
      <section aria-label="Picture">
        {tabs}
        <Shown job={job} setting={shown} part="Picture" />
        <Shown job={job} setting={shown} part="Notes" />
      </section>
      <section className="set-pad" aria-label="The move">
        {isDue(job, shown.means) ? (
          <Shown job={job} setting={shown} part="First" />
        ) : (
          <Move key={shown.sets} job={job} setting={shown} onSteps={onSteps} />
        )}
      </section>
    </div>
  );
}

interface ShownProps {
  job: Job;
  setting: Setting;
  part: 'Picture' | 'Notes' | 'First';
}

/** What its means shows: the picture, what stands under it, or what has to be done first. */
function Shown({ job, setting, part }: ShownProps) {
  const { means } = setting;
  return <OfKind kind={means.kind} view={means} job={job} setting={setting} part={part} />;
}

function OfKind<K extends MeansKind>({ kind, part, ...props }: ShownProps & MeansProps<K> & { kind: K }) {
  const Part = partsOf(kind)[part];
  return Part ? <Part {...props} /> : null;
}

/** Whether something has to be done before the first try. */
const isDue = (job: Job, view: MeansView) => dueOf(view.kind, view, job);

const dueOf = <K extends MeansKind>(kind: K, view: ViewOf<K>, job: Job) =>
  partsOf(kind).isDue?.(job, view) ?? false;

interface MoveProps {
  job: Job;
  setting: Setting;
  onSteps: (() => void) | null;
}

function Move({ job, setting, onSteps }: MoveProps) {
  const tries = standing(setting);
  const last = tries.at(-1);
  const one = setting.gaps.length === 1;
  return (
    <>
      <Headline job={job} setting={setting} />
      {one ? (
        <GapBar
          faces={setting.faces}
          low={{ mm: setting.low_mm, text: setting.low }}
          high={{ mm: setting.high_mm, text: setting.high }}
          targetMm={setting.target_mm}
          measured={last ? { mm: last.gap_mm, expandedMm: last.expanded_mm, text: last.gap } : null}
        />
      ) : (
        <Gaps gaps={setting.gaps} unit={job.unit} />
      )}
      <Warnings setting={setting} />
      {last?.verdict === 'Keep' && onSteps && (
        <p className="notice">
          What was opened is to be done again here, in its order.{' '}
          <button type="button" className="tool" onClick={onSteps}>
            To the steps
          </button>
        </p>
      )}
      <Tries job={job} setting={setting} />
      {one && tries.length > 1 && <TriesPlot setting={setting} unit={job.unit} />}
      {!job.signed && !job.abandoned && <TryForm key={setting.tries.length} job={job} setting={setting} />}
      {setting.sets === 'gap' && <Costs job={job} />}
    </>
  );
}

/** The move in one large sentence, with what is behind it. */
function Headline({ job, setting }: { job: Job; setting: Setting }) {
  return (
    <>
      {setting.gaps.length === 1 && (
        <p className="quiet">
          Window {setting.low} to {setting.high}, aim for {setting.target} {job.unit}.
        </p>
      )}
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
    </>
  );
}

/** What would wreck the pump, and what is odd. */
function Warnings({ setting }: { setting: Setting }) {
  return (
    <>
      {setting.hot?.touches && (
        <p className="problem" role="alert">
          {setting.hot.sentence} This blocks sign-off. <WorkingLink working={setting.hot.working} />
        </p>
      )}
      {setting.warming && (
        <p className={setting.warming.touches ? 'notice' : 'quiet'}>
          {setting.warming.sentence} <WorkingLink working={setting.warming.working} />
        </p>
      )}
      {setting.mismatch && <p className="notice">{setting.mismatch}</p>}
      {setting.bent.map((sentence) => (
        <p className="quiet" key={sentence}>
          {sentence}
        </p>
      ))}
      {setting.outside.map((sentence) => (
        <p key={sentence} className="notice">
          {sentence} The pump is not right while it is.
        </p>
      ))}
    </>
  );
}

function Costs({ job }: { job: Job }) {
  if (!job.slip.left.length) return null;
  return (
    <details>
      <summary>What this gap costs: slip, flow, power</summary>
      <Lines lines={job.slip.left} />
    </details>
  );
}
