import { useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { client, type SharedLink } from '../api/client';
import { OwnAddress } from './OwnAddress';
import { ProblemNote } from './ProblemNote';
import { day, moment } from './time';
import { useTyped } from './useTyped';
import type { Entered } from './works';

/** A new address, shown this once: it is kept nowhere. */
export function MadeAddress({ address }: { address: string }) {
  const field = useRef<HTMLInputElement>(null);
  const [copied, setCopied] = useState(false);
  const copy = () => {
    field.current?.select();
    void navigator.clipboard?.writeText(address).then(() => setCopied(true));
  };
  return (
    <div className="made-address" role="status">
      <label className="field">
        Its address, shown this once
        <input ref={field} type="text" readOnly value={address} onFocus={(event) => event.target.select()} />
      </label>
      <button type="button" className="btn btn-outline-primary" onClick={copy}>
        {copied ? 'Copied' : 'Copy'}
      </button>
      <OwnAddress what="It" />
    </div>
  );
}

/** Links that were made, each with what became of it. */
export function LinkTable({ lines }: { lines: SharedLink[] }) {
  return (
    <table className="ruled">
      <thead>
        <tr>
          <th scope="col">For</th>
          <th scope="col">Leads to</th>
          <th scope="col">Made</th>
          <th scope="col">Used</th>
          <th scope="col">Now</th>
        </tr>
      </thead>
      <tbody>
        {lines.map((link) => (
          <LinkRow key={link.id} link={link} />
        ))}
      </tbody>
    </table>
  );
}

function LinkRow({ link }: { link: SharedLink }) {
  return (
    <tr className={link.state === 'open' ? '' : 'faint'}>
      <th scope="row">{link.whom}</th>
      <td>
        {link.of}
        {link.until && <small>until {day(link.until)}</small>}
      </td>
      <td>
        {link.by}
        <small>{moment(link.at)}</small>
      </td>
      <td>
        {link.uses ? `${link.uses}×` : 'never'}
        {link.last_used && <small>last {moment(link.last_used)}</small>}
      </td>
      <td>
        {said(link)}
        {link.may_revoke && <TakeBack id={link.id} />}
      </td>
    </tr>
  );
}

/** A link is taken back by two presses: it cannot be given again. */
function TakeBack({ id }: { id: string }) {
  const cache = useQueryClient();
  const [sure, setSure] = useState(false);
  const revoke = useTyped(
    (body: Entered) => client.POST('/api/links/{id}/revoke', { params: { path: { id } }, body }),
    () => cache.invalidateQueries({ queryKey: ['links'] }),
  );
  if (!sure)
    return (
      <button type="button" className="take-back" onClick={() => setSure(true)}>
        take it back
      </button>
    );
  return (
    <>
      <button
        type="button"
        className="btn btn-outline-primary"
        disabled={revoke.isPending}
        onClick={() => revoke.mutate({})}
      >
        It leads nowhere from now on
      </button>
      <ProblemNote error={revoke.error} />
    </>
  );
}

function said(link: SharedLink): string {
  if (link.state === 'revoked' && link.revoked_at)
    return `taken back by ${link.revoked_by}, ${moment(link.revoked_at)}`;
  return link.state === 'ended' ? 'has ended' : 'open';
}
