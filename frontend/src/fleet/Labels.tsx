import { useState } from 'react';
import { useSearchParams } from 'react-router';
import { TextField } from '../app/TextField';
import { Choice } from '../app/Choice';
import { OwnAddress } from '../app/OwnAddress';
import { FleetNav } from './FleetNav';

const SIZES = [
  ['a4-21', 'A4, 21 of 63.5 × 38.1 mm'],
  ['a4-14', 'A4, 14 of 99.1 × 38.1 mm'],
  ['a4-24', 'A4, 24 of 70 × 37 mm'],
  ['a4-8', 'A4, 8 of 99.1 × 67.7 mm'],
  ['letter-30', 'Letter, 30 of 2⅝ × 1 in'],
  ['letter-10', 'Letter, 10 of 4 × 2 in'],
] as const;

/** Labels for pumps, as sheets to print. */
export function Labels() {
  const [params] = useSearchParams();
  const [words, setWords] = useState(params.get('q') ?? '');
  const [tag, setTag] = useState(params.get('tag') ?? '');
  const [size, setSize] = useState<string>(SIZES[0][0]);
  const [first, setFirst] = useState('1');
  const asked = new URLSearchParams({ size, first: first.trim() || '1', sort: 'tag', retired: 'false' });
  if (tag.trim()) asked.set('tag', tag.trim());
  else if (words.trim()) asked.set('q', words.trim());
  return (
    <div className="page">
      <FleetNav />
      <h1>Labels</h1>
      <p>
        Each label has a code that opens its pump, or the job it is on the bench for, and six letters to type
        where nothing scans. A tag may be given anew: its label stays right.
      </p>
      <div className="asks">
        <TextField label="One pump, by its tag" value={tag} maxLength={30} onChange={setTag} />
        <TextField
          label="Or all that are found by words; nothing for the whole fleet"
          value={words}
          maxLength={80}
          onChange={setWords}
        />
        <Choice label="Sheet in the printer" value={size} choices={SIZES} onChange={setSize} />
        <TextField
          short
          label="First free label of the sheet"
          keyboard="numeric"
          value={first}
          onChange={setFirst}
        />
      </div>
      <a
        className="btn btn-primary"
        href={`/api/labels.pdf?${asked.toString()}`}
        target="_blank"
        rel="noreferrer"
      >
        Labels as PDF
      </a>
      <OwnAddress what="The code" />
      <p className="quiet">Print at 100 %, never fitted to the page.</p>
    </div>
  );
}
