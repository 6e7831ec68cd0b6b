import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { PartNow, PumpDetail } from '../api/client';
import { pumpDrawingQuery, pumpWearQuery } from '../api/fleetQueries';
import { Loaded } from '../app/Loading';
import { day } from '../app/time';
import { useUnit } from '../app/unit';
import { WorkingLink } from '../app/WorkingLink';
import { WearBar } from '../drawing/GapBar';
import { PumpOrRoom } from '../drawing/PumpDrawing';
import type { DrawnFeature } from '../drawing/stateOf';
import { useScreen } from '../drawing/useDrawing';
import { VerdictMark } from '../drawing/VerdictMark';
import { WearChart } from '../drawing/WearChart';

/** What a part is between two overhauls, as the drawing shows it. */
function drawnOf(part: PartNow): DrawnFeature {
  // What is left of it says more than its size, which stands in the panel.
  const size = part.measured ? { text: part.bar?.left || part.size } : null;
  return {
    key: part.key,
    number: part.number,
    name: part.name,
    kind: 'external',
    done: part.measured,
    wanted: true,
    suspect: 0,
    stations: [],
    readings: [],
    found: size,
    left: null,
    judged: part.verdict ? { verdict: part.verdict } : null,
    judged_left: null,
    look: null,
    look_left: null,
    open: part.size ? 'not measured' : 'not known',
  };
}

/** The drawing with every gap as last known and what is left of it; the one in hand beside it, with its lives. */
export function PumpState({ page }: { page: PumpDetail }) {
  const { unit } = useUnit();
  const screen = useScreen();
  const { tag } = page.line;
  const drawing = useQuery({
    ...pumpDrawingQuery(tag, unit, screen),
    placeholderData: keepPreviousData,
  });
  const drawnKeys = new Set(drawing.data?.numbers.map((one) => one.key));
  const parts = page.parts.filter((part) => drawnKeys.has(part.key));
  const [chosen, setChosen] = useState('');
  const worst = page.line.worst[0]?.key ?? '';
  const part = page.parts.find((one) => one.key === (chosen || worst)) ?? page.parts[0];
  return (
    <div className="pump-state">
      <section aria-label="Drawing">
        <PumpOrRoom
          drawing={drawing.data}
          lost={drawing.isError && !drawing.data}
          features={parts.map(drawnOf)}
          selected={part?.key ?? ''}
          onSelect={setChosen}
        />
        {page.unknown && <p className="notice">{page.unknown}</p>}
      </section>
      {part && <Part tag={tag} parts={page.parts} part={part} onSelect={setChosen} />}
    </div>
  );
}

interface PartProps {
  tag: string;
  parts: PartNow[];
  part: PartNow;
  onSelect: (key: string) => void;
}

function Part({ tag, parts, part, onSelect }: PartProps) {
  const { unit } = useUnit();
  return (
    <section aria-label="Part in hand" className="part-now">
      <select aria-label="Part in hand" value={part.key} onChange={(event) => onSelect(event.target.value)}>
        {parts.map((one) => (
          <option key={one.key} value={one.key}>
            {one.number} {one.name}
            {one.verdict ? `: ${one.verdict}` : ''}
          </option>
        ))}
      </select>
      <div className="verdict-line">
        <VerdictMark verdict={part.verdict || null} size={34} />
        <p>
          <b>{part.verdict || (part.size ? 'New, not measured' : 'Not known')}</b>
          {part.day && <> · {day(part.day)}</>}
          <br />
          {part.sentence}
        </p>
      </div>
      {part.bar && (
        <WearBar
          newMm={part.bar.new}
          limitMm={part.bar.limit}
          limitText={part.bar.limit_text}
          valueMm={part.bar.mm}
          expandedMm={part.bar.expanded_mm}
          laterMm={part.bar.later}
        />
      )}
      {part.left && (
        <p>
          <b>{part.left}</b>, by its wear. {part.date}{' '}
          {part.working && <WorkingLink working={part.working} />}
        </p>
      )}
      {part.odd.map((odd) => (
        <p key={odd} className="notice">
          {odd}
        </p>
      ))}
      <Wear tag={tag} feature={part.key} unit={unit} />
    </section>
  );
}

function Wear({ tag, feature, unit }: { tag: string; feature: string; unit: 'mm' | 'in' | 'thou' }) {
  const wear = useQuery(pumpWearQuery(tag, feature, unit));
  const [calendar, setCalendar] = useState(false);
  return (
    <>
      <div className="segments" role="group" aria-label="Drawn against">
        <button type="button" aria-pressed={!calendar} onClick={() => setCalendar(false)}>
          hours
        </button>
        <button type="button" aria-pressed={calendar} onClick={() => setCalendar(true)}>
          calendar
        </button>
      </div>
      <Loaded query={wear} what="its wear">
        {(data) => <WearChart wear={data} unit={unit} calendar={calendar} />}
      </Loaded>
    </>
  );
}
