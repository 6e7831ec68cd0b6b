import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { client, newId, posted, type DraftPage } from '../../api/client';
import { draftDrawingQuery } from '../../api/queries';
import { FileButton } from '../../app/FileButton';
import { ProblemNote } from '../../app/ProblemNote';
import { PlainDrawing } from '../../drawing/PlainDrawing';
import { TableMap } from '../../drawing/TableMap';
import { ManualPages } from '../ManualPages';
import type { Draft } from './useDraft';

interface Props {
  page: DraftPage;
  draft: Draft;
  section: string;
  onSize: () => void;
}

/** What stands beside the typing: the pump with its numbers, the table as a map, or a page of the manual. */
export function Beside({ page, draft, section, onSize }: Props) {
  const [page_, setPage] = useState('');
  const view = page_ || (section === 'clearance_table' ? 'map' : 'pump');
  return (
    <aside className="typing-beside" aria-label="Beside the typing">
      <div className="tabs" role="group" aria-label="What stands here">
        {(
          [
            ['pump', 'The pump'],
            ['map', 'The table'],
            ['manual', `The manual${page.pages.length ? ` (${page.pages.length})` : ''}`],
          ] as const
        ).map(([key, name]) => (
          <button key={key} type="button" aria-pressed={view === key} onClick={() => setPage(key)}>
            {name}
          </button>
        ))}
      </div>
      {view === 'pump' && <Pump draft={draft} onSize={onSize} />}
      {view === 'map' && <Map draft={draft} />}
      {view === 'manual' && <Manual page={page} />}
    </aside>
  );
}

function Pump({ draft, onSize }: { draft: Draft; onSize: () => void }) {
  const drawing = useQuery(draftDrawingQuery(draft.id, draft.state.version));
  const { fields } = draft.typed;
  if (!drawing.data) return <div className="drawing-room" aria-busy="true" />;
  return (
    <PlainDrawing
      drawing={drawing.data}
      isTyped={(key) => Boolean(fields[`features.${key}.new`])}
      onSelect={onSize}
    />
  );
}

function Map({ draft }: { draft: Draft }) {
  const { map, overlaps, problems } = draft.state;
  const holes = problems.filter((one) => one.path.startsWith('clearance_table') && /hole/.test(one.problem));
  return (
    <>
      {map ? <TableMap map={map} /> : <p className="quiet">Rows that can be read are drawn here.</p>}
      {(holes.length > 0 || overlaps.length > 0) && (
        <ul className="faults">
          {holes.map((one) => (
            <li key={one.path} className="wrong">
              {one.problem}
            </li>
          ))}
          {overlaps.map((said) => (
            <li key={said}>{said}</li>
          ))}
        </ul>
      )}
      {overlaps.length > 0 && <p className="quiet">Where rows overlap the larger clearance is taken.</p>}
    </>
  );
}

function Manual({ page }: { page: DraftPage }) {
  const cache = useQueryClient();
  const { id } = page.state;
  const again = () => cache.invalidateQueries({ queryKey: ['draft', id] });
  const attach = useMutation({
    retry: false,
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('id', newId());
      form.append('file', file);
      return posted<DraftPage>(`/api/sheet-drafts/${id}/pages`, form);
    },
    onSuccess: again,
  });
  const remove = useMutation({
    retry: false,
    mutationFn: (of: string) => client.DELETE('/api/manual-pages/{id}', { params: { path: { id: of } } }),
    onSuccess: again,
  });
  return (
    <>
      <ManualPages
        pages={page.pages}
        under={(one) => (
          <Button variant="outline-secondary" size="sm" onClick={() => remove.mutate(one.id)}>
            Take it away
          </Button>
        )}
      />
      <p className="said">
        Photograph the page, or take it from the manual’s PDF. It stays with the revision, inside this works.
      </p>
      <FileButton
        label="Page of the manual"
        accept="image/jpeg,image/png,image/webp,application/pdf"
        off={attach.isPending}
        onFile={(file) => attach.mutate(file)}
      >
        Put a page here
      </FileButton>
      <ProblemNote error={attach.error} />
    </>
  );
}
