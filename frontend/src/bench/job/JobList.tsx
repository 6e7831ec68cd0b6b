import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { client, type JobLine } from '../../api/client';
import { jobsQuery, pumpsQuery } from '../../api/queries';
import { Loaded } from '../../app/Loading';
import { ProblemNote } from '../../app/ProblemNote';
import { TextField } from '../../app/TextField';
import { day, moment } from '../../app/time';
import { useUnit } from '../../app/unit';
import { useTyped } from '../../app/useTyped';
import type { Entered } from '../../app/works';

/** What is on the bench, what was signed, and a new job. */
export function JobList() {
  const jobs = useQuery(jobsQuery);
  return (
    <div className="page two-columns">
      <Loaded query={jobs} what="the jobs">
        {(lines) => (
          <div>
            <h1>On the bench</h1>
            <Lines
              lines={lines.filter((l) => !l.signed_at && l.ended !== 'abandoned')}
              empty="Nothing on the bench. Open a job on the right."
            />
            <h2 className="mt-5">Signed</h2>
            <Lines lines={lines.filter((l) => l.signed_at)} empty="No job has been signed yet." />
            {lines.some((l) => l.ended === 'abandoned') && (
              <>
                <h2 className="mt-5">Abandoned</h2>
                <Lines lines={lines.filter((l) => l.ended === 'abandoned')} empty="" />
              </>
            )}
          </div>
        )}
      </Loaded>
      <OpenJob />
    </div>
  );
}

function Lines({ lines, empty }: { lines: JobLine[]; empty: string }) {
  if (!lines.length) return <p className="quiet">{empty}</p>;
  return (
    <ul className="lines">
      {lines.map((line) => (
        <li key={line.number}>
          <Link to={`/bench/${line.number}`}>
            <b>{line.pump}</b> <span>{line.service}</span>
            <small>
              Job {line.number}. {line.reason}. Opened by {line.opened_by}, {day(line.opened_at)}.
            </small>
            <small>
              {line.ended === 'void' && <b>Void. </b>}
              {line.signed_at ? `Signed ${moment(line.signed_at)}` : line.last}
            </small>
          </Link>
        </li>
      ))}
    </ul>
  );
}

function OpenJob() {
  const [search] = useSearchParams();
  const { unit } = useUnit();
  const pumps = useQuery(pumpsQuery(unit));
  const [pump, setPump] = useState(search.get('pump') ?? '');
  const [reason, setReason] = useState('');
  const [hours, setHours] = useState('');
  const [symptom, setSymptom] = useState('');
  const navigate = useNavigate();
  const cache = useQueryClient();
  const open = useTyped(
    (body: { pump: string; reason: string; hours_run: string; symptom: string } & Entered) =>
      client.POST('/api/jobs', { params: { query: { unit: body.unit } }, body }),
    (job) => {
      cache.setQueryData(['job', job.number, job.unit], job);
      void cache.invalidateQueries({ queryKey: ['jobs'] });
      void navigate(`/bench/${job.number}/prepare`);
    },
  );
  // What can be opened stands first.
  const free = [...(pumps.data ?? [])].sort(
    (a, b) => Number(a.on_bench !== null) - Number(b.on_bench !== null),
  );
  const symptoms = pumps.data?.find((p) => p.tag === pump)?.symptoms ?? [];
  return (
    <form
      className="panel"
      onSubmit={(event) => {
        event.preventDefault();
        open.mutate({ pump, reason, hours_run: hours, symptom });
      }}
    >
      <h2>Open a job</h2>
      <fieldset>
        <legend>Pump</legend>
        <div className="pick-list">
          {free.map((p) => (
            <label key={p.tag} className={p.on_bench ? 'taken' : ''}>
              <input
                type="radio"
                name="pump"
                value={p.tag}
                checked={pump === p.tag}
                disabled={p.on_bench !== null}
                onChange={() => setPump(p.tag)}
              />
              <span>
                <b>{p.tag}</b> {p.service}
                <small>
                  {p.on_bench
                    ? `on the bench, job ${p.on_bench}`
                    : `${p.sheet}, ${p.liquid}, ${p.viscosity} at ${p.temperature}`}
                </small>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      {symptoms.length > 0 && (
        <label className="field">
          Symptom
          <select value={symptom} onChange={(event) => setSymptom(event.target.value)}>
            <option value="">none of these</option>
            {symptoms.map((s) => (
              <option key={s.key} value={s.key}>
                {s.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <TextField label="Why it came in" value={reason} maxLength={200} onChange={setReason} />
      <TextField
        label="Hours run (h), if known"
        keyboard="numeric"
        value={hours}
        maxLength={20}
        onChange={setHours}
      />
      <ProblemNote error={open.error} onConfirm={open.confirm} />
      <Button type="submit" size="lg" disabled={open.isPending}>
        Open job
      </Button>
    </form>
  );
}
