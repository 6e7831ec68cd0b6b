import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Button } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { client, type PumpChoices, type PumpDetail } from '../api/client';
import { foundSheetsQuery, pumpChoicesQuery } from '../api/queries';
import type { components } from '../api/schema';
import { Finder } from '../app/Finder';
import { ProblemNote } from '../app/ProblemNote';
import { useDraftForm } from '../app/useDraftForm';
import { useUnit } from '../app/unit';
import { useWorks, type Entered } from '../app/works';
import { PumpFields, buildOf, rebuilt, signsOf, textsOf } from './PumpFields';
import { usePumpChange } from './usePumpChange';

type Given = Omit<components['schemas']['EditPumpRequest'], keyof Entered>;

interface Props {
  page: PumpDetail;
  onHide: () => void;
}

/** A pump put right. Its open job keeps the duty it was opened with. */
export function PumpForm({ page, onHide }: Props) {
  const { entered } = page;
  const [begun, setBegun] = useState(() => textsOf(entered.choices, page));
  const [wet, setWet] = useState(page.wet);
  const sheet = begun.sheet ?? '';
  // Another sheet has other materials, and its pumps differ in other things.
  const other = useQuery({
    ...pumpChoicesQuery(sheet),
    enabled: sheet !== entered.choices.sheet,
  });
  const choices = sheet === entered.choices.sheet ? entered.choices : other.data;
  if (!choices) return <p className="quiet">The sheet is asked for …</p>;
  return (
    <Draft
      key={choices.sheet}
      page={page}
      choices={choices}
      begun={rebuilt(begun, choices)}
      wet={wet}
      onWet={setWet}
      onSheet={setBegun}
      onHide={onHide}
    />
  );
}

interface DraftProps extends Props {
  choices: PumpChoices;
  begun: Record<string, string>;
  wet: boolean;
  onWet: (wet: boolean) => void;
  /** Another sheet was chosen; what was typed goes with it. */
  onSheet: (texts: Record<string, string>) => void;
}

function Draft({ page, choices, begun, wet, onWet, onSheet, onHide }: DraftProps) {
  const { unit } = useUnit();
  const { signs } = useWorks();
  const navigate = useNavigate();
  const [initial] = useState(begun);
  const form = useDraftForm(initial, signsOf(signs, unit));
  const save = usePumpChange(page.line.tag, (body: Given & Entered, at) =>
    client.PUT('/api/pumps/{tag}', { ...at, body }),
  );
  const send = () => {
    if (save.isPending) return;
    const { texts, build } = buildOf(form, choices);
    save.mutate({ version: page.entered.version, ...texts, build, wet } as Given, {
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
      <PumpFields form={form} choices={choices} wet={wet} onWet={onWet} />
      <Finder
        label={`Spec sheet: ${choices.title}`}
        find="Find another by title, maker or model"
        what="the sheets"
        ask={(sought) => foundSheetsQuery(sought)}
        keyOf={(s) => s.slug}
        value={choices.sheet}
        onChoose={(slug) => onSheet({ ...form.texts(), sheet: slug })}
      >
        {(s) => (
          <>
            {s.title} <small>revision {s.revision}</small>
          </>
        )}
      </Finder>
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
