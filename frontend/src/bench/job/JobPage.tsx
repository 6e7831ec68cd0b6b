import { queryOptions, useQuery } from '@tanstack/react-query';
import { Link, NavLink, useNavigate, useParams } from 'react-router';
import type { Job } from '../../api/client';
import { jobQuery } from '../../api/queries';
import { useKeys } from '../../app/keys';
import { Loaded } from '../../app/Loading';
import { moment } from '../../app/time';
import { useUnit } from '../../app/unit';
import { Inspect } from '../inspect/Inspect';
import { Prepare } from '../prepare/Prepare';
import { isStage, nextStage, openIn, passedOver, presentStage, STAGES, type StageKey } from './stages';
import { Strip } from '../strip/Strip';
import { Talk } from './Talk';
import { Unsaved } from './Unsaved';
import { useNews } from './useNews';

type Screen = (props: { job: Job }) => React.ReactNode;

const FIRST: Partial<Record<StageKey, Screen>> = { prepare: Prepare, strip: Strip, inspect: Inspect };

/** Fetched at once with any job, and kept: a stage is gone to without the server. */
const laterQuery = queryOptions({
  queryKey: ['later stages'],
  queryFn: async (): Promise<Partial<Record<StageKey, Screen>>> => {
    const [{ LATER }] = await Promise.all([import('./laterStages'), import('../prepare/DetailsForm')]);
    return LATER;
  },
  staleTime: Infinity,
  gcTime: Infinity,
  retry: true,
  networkMode: 'always',
});

/** One job: the pump, its duty, the ribbon of stages, and the stage in hand. */
export function JobPage() {
  const { number = '', stage } = useParams();
  const { unit } = useUnit();
  const job = useQuery(jobQuery(Number(number), unit));
  useNews(Number(number));
  return (
    <Loaded query={job} what={`job ${number}`}>
      {(data) => <Bench job={data} stage={isStage(stage) ? stage : presentStage(data)} />}
    </Loaded>
  );
}

function Bench({ job, stage }: { job: Job; stage: StageKey }) {
  const navigate = useNavigate();
  // Shown at once, so that a key pressed right after is the new stage's: a hand does not wait for a screen.
  const next = () => void navigate(`/bench/${job.number}/${nextStage(stage)}`, { flushSync: true });
  useKeys([{ key: 'n', label: 'next stage', run: next }]);
  const later = useQuery(laterQuery);
  const First = FIRST[stage];
  return (
    <div className="job">
      <header className="job-head">
        <h1>
          {job.pump.tag}
          <small>
            {job.pump.service}, {job.pump.location} · {job.pump.maker} {job.pump.model}, serial{' '}
            {job.pump.serial}
          </small>
        </h1>
        <p>
          {job.duty.liquid} · {job.duty.viscosity} at {job.duty.temperature} · {job.duty.pressure} ·{' '}
          {job.duty.speed}
        </p>
      </header>
      <Ribbon job={job} stage={stage} />
      <Talk key={job.number} job={job} />
      {job.signed && (
        <p className="signed-note" role="status">
          Signed by {job.signed.by}. Shown as it was then; it can be read, not changed.
        </p>
      )}
      {job.abandoned && (
        <p className="signed-note" role="status">
          Abandoned by {job.abandoned.by}, {moment(job.abandoned.at)}: {job.abandoned.reason}
        </p>
      )}
      {job.amendments.some((a) => a.void) && (
        <p className="passed-over" role="status">
          <b>Void:</b> nothing of this record counts for {job.pump.tag}.
        </p>
      )}
      <PassedOver job={job} stage={stage} />
      <SheetNotes job={job} stage={stage} />
      <Unsaved job={job} />
      {First ? (
        <First job={job} />
      ) : (
        <Loaded query={later} what="this stage">
          {({ [stage]: Later }) => Later && <Later job={job} />}
        </Loaded>
      )}
    </div>
  );
}

/** The stages, with what is open in each. */
function Ribbon({ job, stage }: { job: Job; stage: StageKey }) {
  return (
    <nav className="ribbon" aria-label="Stages of the job">
      {STAGES.map(([key, name]) => (
        <NavLink
          key={key}
          to={`/bench/${job.number}/${key}`}
          className={`${key === stage ? 'present' : ''} ${isDone(job, key) ? 'done' : ''}`}
          aria-current={key === stage ? 'step' : undefined}
        >
          {name} <small>{openIn(job, key)}</small>
        </NavLink>
      ))}
    </nav>
  );
}

/** What has to be known of the sheet at any stage: nobody has read it yet; it was corrected since; what its maker warns of here. */
function SheetNotes({ job, stage }: { job: Job; stage: StageKey }) {
  const cautions = job.signed ? [] : job.cautions.filter((one) => one.stage === stage);
  return (
    <>
      {job.sheet_unread && !job.abandoned && (
        <p className="unread" role="status">
          Sheet not yet read against the manual: nothing is signed on it.{' '}
          <Link to={`/sheets/${job.slug}/latest`}>To the sheet</Link>
        </p>
      )}
      {job.corrected.map((one) => (
        <div key={one.revision} className="passed-over" role="status">
          <b>
            The sheet was corrected after the signature: revision {one.revision}, {one.by}, {moment(one.at)}.
          </b>
          <ul>
            {one.numbers.map((said) => (
              <li key={said}>{said}</li>
            ))}
          </ul>
        </div>
      ))}
      {cautions.length > 0 && (
        <div className="passed-over" role="note">
          <b>The maker warns:</b>
          <ul>
            {cautions.map((one) => (
              <li key={one.text}>{one.text}</li>
            ))}
          </ul>
        </div>
      )}
    </>
  );
}

/** Work begun before it was made safe is said on every later stage until it is. */
function PassedOver({ job, stage }: { job: Job; stage: StageKey }) {
  const [first, ...more] = job.signed || job.abandoned ? [] : passedOver(job, stage);
  if (!first) return null;
  return (
    <p className="passed-over" role="status">
      <b>Not made sure of yet:</b> <Link to={`/bench/${job.number}/${first.stage}`}>{first.text}</Link>
      {more.length > 0 && ` And ${more.length} more.`}
    </p>
  );
}

function isDone(job: Job, key: StageKey): boolean {
  const stage = job.stages.find((s) => s.key === key);
  return job.signed !== null || (stage !== undefined && stage.done >= stage.of && stage.of > 0);
}
