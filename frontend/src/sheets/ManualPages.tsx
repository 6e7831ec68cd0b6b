import { useState, type ReactNode } from 'react';
import type { DraftPage } from '../api/client';

type Page = DraftPage['pages'][number];

interface Props {
  pages: Page[];
  /** What can be done with the page that is shown. */
  under?: (page: Page) => ReactNode;
}

/** Pages of the manual, one at a time: a photograph here, a PDF in a page of its own. */
export function ManualPages({ pages, under }: Props) {
  const [chosen, setChosen] = useState('');
  const page = pages.find((one) => one.id === chosen) ?? pages.at(-1);
  if (!page) return null;
  const at = `/api/manual-pages/${page.id}`;
  return (
    <figure className="manual-page">
      {pages.length > 1 && (
        <div className="tabs" role="group" aria-label="Pages">
          {pages.map((one) => (
            <button
              key={one.id}
              type="button"
              aria-pressed={one.id === page.id}
              onClick={() => setChosen(one.id)}
            >
              {one.name}
            </button>
          ))}
        </div>
      )}
      {page.kind === 'pdf' ? (
        <iframe src={at} title={page.name} />
      ) : (
        <a href={at} target="_blank" rel="noreferrer">
          <img src={at} alt={`Page of the manual: ${page.name}`} />
        </a>
      )}
      <figcaption>
        <a href={at} target="_blank" rel="noreferrer">
          {page.name} in a page of its own
        </a>{' '}
        {under?.(page)}
      </figcaption>
    </figure>
  );
}
