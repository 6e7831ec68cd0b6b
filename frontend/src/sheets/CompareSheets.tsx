import { useQuery } from '@tanstack/react-query';
import { Link, useParams } from 'react-router';
import { comparisonQuery } from '../api/queries';
import { Loaded } from '../app/Loading';
import '../styles/typing.css';

/** Two revisions of a sheet side by side: what the later prints otherwise. */
export function CompareSheets() {
  const { slug = '', revision = '', other = '' } = useParams();
  const found = useQuery(comparisonQuery(slug, revision, other));
  return (
    <div className="page">
      <Loaded query={found} what="both revisions">
        {({ title, before, after, same, changes }) => (
          <>
            <header className="sheet-head">
              <div>
                <h1>
                  {title}: revision {before} and {after}
                </h1>
                <p>
                  {changes.length
                    ? `${changes.length} lines differ, ${same} are the same.`
                    : `Both print the same, in ${same} lines.`}
                </p>
              </div>
              <Link className="btn btn-outline-primary" to={`/sheets/${slug}/${encodeURIComponent(after)}`}>
                To the sheet
              </Link>
            </header>
            {changes.length > 0 && (
              <table className="compared">
                <thead>
                  <tr>
                    <th scope="col">What</th>
                    <th scope="col">Revision {before}</th>
                    <th scope="col">Revision {after}</th>
                  </tr>
                </thead>
                <tbody>
                  {changes.map((one) => (
                    <tr key={one.path}>
                      <th scope="row">
                        {one.number > 0 && `${one.number} `}
                        {one.label} <small>{one.section}</small>
                      </th>
                      <td>{one.before || 'not said'}</td>
                      <td>{one.after || 'not said'}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
          </>
        )}
      </Loaded>
    </div>
  );
}
