import { useState } from 'react';
import type { Job } from '../../api/client';
import { useUnit } from '../../app/unit';
import { WorkingLink } from '../../app/WorkingLink';

/** The cheapest cover of all that must change, what the kits bring besides, and the order as a file or text. */
export function OrderPanel({ job }: { job: Job }) {
  const { order } = job;
  if (!order) {
    return (
      <section className="order" aria-label="Parts to order">
        <h2>Parts to order</h2>
        <p className="quiet">This sheet has no catalogue of parts and kits.</p>
      </section>
    );
  }
  return (
    <section className="order" aria-label="Parts to order">
      <h2>Parts to order</h2>
      <p className="big-total">
        {order.total} <small>{order.lead}</small>
      </p>
      <ul className="order-lines">
        {order.lines.map((line) => (
          <li key={line.number}>
            <b>{line.count} ×</b>
            <span>
              {line.name} <small>{line.number}</small>
              <small className="why-line">{line.reasons.join('; ')}</small>
            </span>
            <span className="number">
              {line.price}
              <small>{line.lead}</small>
            </span>
          </li>
        ))}
      </ul>
      {order.lines.length === 0 && <p>Nothing has to be ordered.</p>}
      {order.spare.length > 0 && <p className="quiet">The kits also bring: {order.spare.join(', ')}.</p>}
      {order.missing.length > 0 && (
        <p className="warning">Not in the catalogue: {order.missing.join(', ')}. Ask the maker.</p>
      )}
      <p className="quiet">
        For {job.pump.maker} {job.pump.model}, serial {job.pump.serial}.{' '}
        <WorkingLink working={order.working} />
      </p>
      <OrderFiles job={job} />
    </section>
  );
}

/** The order as text on the clipboard, and as files. */
function OrderFiles({ job }: { job: Job }) {
  const { unit } = useUnit();
  const [copied, setCopied] = useState('');
  const address = (kind: string) => `/api/jobs/${job.number}/order.${kind}?unit=${unit}`;
  const copy = async () => {
    try {
      const answer = await fetch(address('txt'));
      await navigator.clipboard.writeText(await answer.text());
      setCopied('Copied, with model and serial.');
    } catch {
      setCopied('This browser does not allow copying here; open the text instead.');
    }
  };
  return (
    <>
      <div className="choices">
        <button type="button" className="tool" onClick={() => void copy()}>
          Copy as text
        </button>
        <a className="tool" href={address('csv')} download>
          CSV
        </a>
        <a className="tool" href={address('pdf')} target="_blank" rel="noreferrer">
          PDF
        </a>
      </div>
      {copied && <p role="status">{copied}</p>}
    </>
  );
}
