import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client } from '../api/client';
import { ProblemNote } from '../app/ProblemNote';
import { TextField } from '../app/TextField';
import type { Entered } from '../app/works';
import { usePumpChange } from './usePumpChange';

interface Row {
  id: string;
  said: string;
  when: string;
  by: string;
  struck_reason: string;
}

/** Lines somebody wrote about a pump; a slip is struck out with a reason and stays in sight. */
export function Struckable({ caption, tag, rows }: { caption: string; tag: string; rows: Row[] }) {
  const [striking, setStriking] = useState('');
  const [reason, setReason] = useState('');
  const strike = usePumpChange(tag, (body: { record: string; reason: string } & Entered, at) =>
    client.POST('/api/pumps/{tag}/strike', { ...at, body }),
  );
  if (!rows.length) return null;
  return (
    <table className="ruled">
      <caption className="visually-hidden">{caption}</caption>
      <tbody>
        {rows.map((row) => (
          <tr key={row.id} className={row.struck_reason ? 'struck' : ''}>
            <th scope="row">{row.said}</th>
            <td>{row.when}</td>
            <td>
              {row.by}
              {row.struck_reason && <em> struck out: {row.struck_reason}</em>}
            </td>
            <td>
              {!row.struck_reason && striking !== row.id && (
                <button type="button" className="take-back" onClick={() => setStriking(row.id)}>
                  strike out
                </button>
              )}
              {striking === row.id && (
                <form
                  onSubmit={(event) => {
                    event.preventDefault();
                    strike.mutate(
                      { record: row.id, reason },
                      {
                        onSuccess: () => {
                          setStriking('');
                          setReason('');
                        },
                      },
                    );
                  }}
                >
                  <TextField autoFocus label="Why" value={reason} maxLength={200} onChange={setReason} />
                  <ProblemNote error={strike.error} />
                  <Button type="submit" disabled={strike.isPending}>
                    Strike out
                  </Button>
                </form>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
