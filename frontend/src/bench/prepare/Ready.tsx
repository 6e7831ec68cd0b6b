import { useState } from 'react';
import { newId, type Job, type Need } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { WorkingLink } from '../../app/WorkingLink';
import { useChange } from '../job/useJob';

const KINDS = [
  ['kit', 'Kits and parts'],
  ['tool', 'Tools'],
  ['consumable', 'Consumables'],
] as const;

/** Tools, kit, gauges and consumables before anything is opened; what is missing stands on top. */
export function Ready({ job }: { job: Job }) {
  const { needs, kit, gauges } = job.ready;
  const say = useChange('on-hand', job.number);
  const [open, setOpen] = useState(false);
  const missing = needs.filter((n) => n.here === false);
  const unknown = needs.filter((n) => n.here === null);
  if (!needs.length) return null;
  return (
    <section className="ready" aria-label="Have ready">
      <h2>Have ready</h2>
      {missing.length > 0 && (
        <p className="problem">
          <b>Missing:</b> {missing.map((n) => n.item).join('; ')}.
        </p>
      )}
      {gauges.length > 0 && (
        <p className="problem">
          <b>No gauge in the cabinet</b> (made for it, in range, in date) for: {gauges.join('; ')}.
        </p>
      )}
      {kit && (
        <p>
          By the forecast have {kit.lines.map((l) => `${l.count} × ${l.name}`).join(', ')} here before it is
          opened: {kit.total}, {kit.lead}. <WorkingLink working={kit.working} />
        </p>
      )}
      <button type="button" className="fold" aria-expanded={open} onClick={() => setOpen(!open)}>
        {unknown.length
          ? `${unknown.length} of ${needs.length} to look for`
          : `all ${needs.length} looked for`}{' '}
        {open ? '▴' : '▾'}
      </button>
      {open &&
        KINDS.map(([kind, name]) => (
          <NeedList
            key={kind}
            name={name}
            needs={needs.filter((n) => n.kind === kind || (kind === 'kit' && n.kind === 'part'))}
            off={job.signed !== null || say.isPending}
            onSay={(item, here) => say.mutate({ id: newId(), items: [item], here })}
          />
        ))}
      {open && unknown.length > 0 && !job.signed && (
        <button
          type="button"
          className="tool"
          disabled={say.isPending}
          onClick={() => say.mutate({ id: newId(), items: unknown.map((n) => n.item), here: true })}
        >
          I have looked: the other {unknown.length} are here
        </button>
      )}
      <ProblemNote error={say.error} />
    </section>
  );
}

interface ListProps {
  name: string;
  needs: Need[];
  off: boolean;
  onSay: (item: string, here: boolean) => void;
}

function NeedList({ name, needs, off, onSay }: ListProps) {
  if (!needs.length) return null;
  return (
    <>
      <h3>{name}</h3>
      <ul className="needs">
        {needs.map((n) => (
          <li key={n.item}>
            <span>{n.item}</span>
            <button
              type="button"
              aria-pressed={n.here === true}
              aria-label={`${n.item}: here`}
              disabled={off}
              onClick={() => onSay(n.item, true)}
            >
              here
            </button>
            <button
              type="button"
              className="lacking"
              aria-pressed={n.here === false}
              aria-label={`${n.item}: missing`}
              disabled={off}
              onClick={() => onSay(n.item, false)}
            >
              missing
            </button>
          </li>
        ))}
      </ul>
    </>
  );
}
