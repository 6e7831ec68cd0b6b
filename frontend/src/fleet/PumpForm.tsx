import { Button } from 'react-bootstrap';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { client, type PumpChoices, type PumpDetail } from '../api/client';
import { foundSheetsQuery } from '../api/queries';
import type { components } from '../api/schema';
import { ProblemNote } from '../app/ProblemNote';
import { Finder } from '../app/Finder';
import { useDraftField, useDraftForm, type DraftForm } from '../app/useDraftForm';
import { useUnit } from '../app/unit';
import { useWorks, type Entered } from '../app/works';
import { PumpFields, buildOf, signsOf, textsOf } from './PumpFields';
import { usePumpChange } from './usePumpChange';

type Given = Omit<components['schemas']['EditPumpRequest'], keyof Entered>;

/** A pump put right. Its open job keeps the duty it was opened with. */
export function PumpForm({ page, onHide }: { page: PumpDetail; onHide: () => void }) {
  const { unit } = useUnit();
  const { signs } = useWorks();
  const navigate = useNavigate();
  const { choices, version } = page.entered;
  const [begun] = useState(() => textsOf(choices, page));
  const form = useDraftForm(begun, signsOf(signs, unit));
  const [wet, setWet] = useState(page.wet);
  const save = usePumpChange(page.line.tag, (body: Given & Entered, at) =>
    client.PUT('/api/pumps/{tag}', { ...at, body }),
  );
  const send = () => {
    const { texts, build } = buildOf(form, choices);
    save.mutate({ version, ...texts, build, wet } as Given, {
      onSuccess: (saved) => {
        onHide();
        void navigate(`/fleet/${encodeURIComponent(saved.line.tag)}`, { replace: true });
      },
    });
  };
  return (
    <form
      className="panel"
      aria-label={`Put ${page.line.tag} right`}
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <PumpFields form={form} choices={choices} wet={wet} onWet={setWet} />
      <SheetField form={form} now={choices} />
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Save
      </Button>{' '}
      <Button variant="outline-secondary" onClick={onHide}>
        Leave it as it is
      </Button>
    </form>
  );
}

/** The sheet it works to, found among all. */
function SheetField({ form, now }: { form: DraftForm; now: PumpChoices }) {
  const [sheet, put] = useDraftField(form, 'sheet');
  const [title, setTitle] = useState(now.title);
  return (
    <Finder
      label={`Spec sheet: ${title}`}
      find="Find another by title, maker or model"
      what="the sheets"
      ask={(sought) => foundSheetsQuery(sought)}
      keyOf={(s) => s.slug}
      value={sheet}
      onChoose={(slug, s) => {
        put(slug);
        setTitle(s.title);
      }}
    >
      {(s) => (
        <>
          {s.title} <small>revision {s.revision}</small>
        </>
      )}
    </Finder>
  );
}
