import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { Button } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import { client, type PumpChoices, type PumpDetail } from '../api/client';
import { foundSheetsQuery, pumpChoicesQuery } from '../api/queries';
import type { components } from '../api/schema';
import { Finder } from '../app/Finder';
import { Loaded } from '../app/Loading';
import { ProblemNote } from '../app/ProblemNote';
import { RowsFromFile } from '../app/RowsFromFile';
import { useDraftForm } from '../app/useDraftForm';
import { useTyped } from '../app/useTyped';
import { useUnit } from '../app/unit';
import { useWorks, type Entered } from '../app/works';
import { PumpFields, buildOf, rebuilt, signsOf, textsOf } from './PumpFields';

type Given = Omit<components['schemas']['AddPumpRequest'], keyof Entered>;

/** A pump put into the fleet: its sheet first, which says what else has to be known; or many from a table. */
export function AddPump({ onHide }: { onHide: () => void }) {
  const [sheet, setSheet] = useState('');
  const [wet, setWet] = useState(false);
  // What was typed goes with another sheet: it is the pump's, not the sheet's.
  const typedRef = useRef<() => Record<string, string>>(() => ({}));
  const [begun, setBegun] = useState<Record<string, string>>({});
  const choices = useQuery(pumpChoicesQuery(sheet));
  return (
    <section className="panel" aria-label="Add a pump">
      <Finder
        label="Which spec sheet does it work to?"
        find="Find a sheet by title, maker or model"
        what="the sheets"
        ask={(sought) => foundSheetsQuery(sought)}
        keyOf={(s) => s.slug}
        value={sheet}
        onChoose={(slug) => {
          setBegun(typedRef.current());
          setSheet(slug);
        }}
      >
        {(s) => (
          <>
            {s.title} <small>revision {s.revision}</small>
          </>
        )}
      </Finder>
      {sheet && (
        <Loaded query={choices} what="the sheet">
          {(of) => (
            <NewPump key={of.sheet} choices={of} begun={begun} typedRef={typedRef} wet={wet} onWet={setWet} />
          )}
        </Loaded>
      )}
      <RowsFromFile
        title="Many pumps from a file"
        url="/api/pumps-from-file"
        row="pump"
        note="Sheet is its title; Built says where a pump differs from its sheet, as in “Shaft seals: single O-ring”."
        stale={['pumps']}
      />
      <Button variant="outline-secondary" onClick={onHide}>
        Leave it
      </Button>
    </section>
  );
}

interface NewProps {
  choices: PumpChoices;
  begun: Record<string, string>;
  /** Tells what is typed so far. */
  typedRef: RefObject<() => Record<string, string>>;
  wet: boolean;
  onWet: (wet: boolean) => void;
}

function NewPump({ choices, begun, typedRef, wet, onWet }: NewProps) {
  const { unit } = useUnit();
  const { signs } = useWorks();
  const navigate = useNavigate();
  const cache = useQueryClient();
  const [initial] = useState(() => rebuilt({ ...textsOf(choices), ...begun }, choices));
  const form = useDraftForm(initial, signsOf(signs, unit));
  useEffect(() => {
    typedRef.current = form.texts;
  });
  const save = useTyped<Given, PumpDetail>(
    (body) => client.POST('/api/pumps', { params: { query: { unit: body.unit } }, body }),
    () => cache.invalidateQueries({ queryKey: ['pumps'] }),
  );
  return (
    <form
      aria-label={`A pump of ${choices.title}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (save.isPending) return;
        const { texts, build } = buildOf(form, choices);
        save.mutate({ ...texts, build, wet } as Given, {
          onSuccess: (saved) => void navigate(`/fleet/${encodeURIComponent(saved.line.tag)}`),
        });
      }}
    >
      <PumpFields form={form} choices={choices} wet={wet} onWet={onWet} />
      <ProblemNote error={save.error} onConfirm={save.confirm} />
      <Button type="submit" disabled={save.isPending}>
        Add the pump
      </Button>
    </form>
  );
}
