import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Button } from 'react-bootstrap';
import { client, unwrap, type Backups } from '../api/client';
import { backupsQuery, meQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { day, moment } from '../app/time';

/** For a lead: the backups of the works, one more at once, and one of them as a file. */
export function BackupsPage() {
  const backups = useQuery(backupsQuery);
  return (
    <div className="page">
      <h1>Backups</h1>
      <Loaded query={backups} what="the backups">
        {(shown) => <Shown shown={shown} />}
      </Loaded>
    </div>
  );
}

function Shown({ shown }: { shown: Backups }) {
  const cache = useQueryClient();
  const make = useMutation({
    retry: false,
    mutationFn: () => unwrap(client.POST('/api/backups')),
    onSuccess: (next) => {
      cache.setQueryData(backupsQuery.queryKey, next);
      void cache.invalidateQueries({ queryKey: meQuery.queryKey });
    },
  });
  return (
    <div className="two-columns">
      <div>
        <p>{shown.of_demo ? 'This is the demo: no backup is made of it.' : standing(shown)}</p>
        {shown.fault && (
          <p className="warning" role="status">
            The last try failed: {shown.fault}
          </p>
        )}
        <Button disabled={make.isPending || shown.asked || shown.of_demo} onClick={() => make.mutate()}>
          {shown.asked ? 'Being made ...' : 'Make one now'}
        </Button>
        <ProblemNote error={make.error} />
        <List shown={shown} />
      </div>
      <HowKept shown={shown} />
    </div>
  );
}

const standing = ({ good, every_hours: hours }: Backups): string =>
  `${good ? `The last was made and checked ${moment(good)}.` : 'None was made and checked yet.'} ` +
  `One is made every ${hours === 1 ? 'hour' : `${hours} hours`} while the server runs.`;

function List({ shown }: { shown: Backups }) {
  if (shown.backups.length === 0) return <p className="quiet">There is none here.</p>;
  return (
    <table className="ruled backups">
      <thead>
        <tr>
          <th scope="col">Made</th>
          <th scope="col">Why</th>
          <th scope="col">Size</th>
          <th scope="col">File</th>
        </tr>
      </thead>
      <tbody>
        {shown.backups.map((one) => (
          <tr key={one.name}>
            <th scope="row">
              {day(one.at)} <small>{moment(one.at).split(', ').at(-1)}</small>
            </th>
            <td>{one.name.startsWith('before') ? 'before a new version' : 'by the clock, or asked for'}</td>
            <td>{size(one.size)}</td>
            <td>
              <a href={`/api/backups/${encodeURIComponent(one.name)}`} aria-label={`Take out ${one.name}`}>
                Take out
              </a>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function HowKept({ shown }: { shown: Backups }) {
  return (
    <section className="panel" aria-label="How they are kept">
      <h2>How they are kept</h2>
      <p>
        Each is one archive of database and photographs, read through after it was written. The last of each
        of seven days, five weeks and twelve months stays, and three made before a new version.
      </p>
      <p>
        They are in <code>{shown.folder}</code>. A backup on the disk of the data is lost with it: take one
        out now and then, or have whoever keeps the server put the folder on another disk.
      </p>
      <p>
        {shown.encrypted
          ? 'They are encrypted. Only the key that was made for them reads them: keep it away from this machine.'
          : 'They are not encrypted: whoever has one reads all of it, and has the hashes of passwords.'}{' '}
        {!shown.encrypted && (
          <>
            <code>fine-gap backup-key FILE</code> changes that.
          </>
        )}
      </p>
      <p>Room left on the disk of the data: {size(shown.free)}.</p>
      <p className="quiet">
        It is put back where the server runs, into an empty folder or over this one, by{' '}
        <code>fine-gap restore FILE</code>; it says what would be lost before it does anything.
      </p>
    </section>
  );
}

function size(bytes: number): string {
  if (bytes >= 1e9) return `${(bytes / 1e9).toFixed(1)} GB`;
  return bytes >= 1e6 ? `${(bytes / 1e6).toFixed(1)} MB` : `${Math.max(1, Math.round(bytes / 1e3))} kB`;
}
