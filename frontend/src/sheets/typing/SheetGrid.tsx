import { useMemo, useRef, useState, type ClipboardEvent } from 'react';
import { Button } from 'react-bootstrap';
import {
  DataGrid,
  type CellKeyboardEvent,
  type CellKeyDownArgs,
  type Column,
  type DataGridHandle,
  type RenderEditCellProps,
} from 'react-data-grid';
import 'react-data-grid/lib/styles.css';
import { client, newId, posted, unwrap, type Ask, type AskedGrid, type Pasted } from '../../api/client';
import { FileButton } from '../../app/FileButton';
import { ProblemNote } from '../../app/ProblemNote';
import type { Draft, Row } from './useDraft';

interface Line {
  /** Of the grid alone: rows are told apart by it while they move. */
  id: string;
  /** The key of a row that is always there; empty for the others. */
  key: string;
  label: string;
  cells: Row;
}

const ROW_PX = 40;
const MOST_PX = 460;

interface Props {
  grid: AskedGrid;
  draft: Draft;
}

/**
 * A table typed as the manual prints it: arrows and Tab, a unit over each column, pasted or read from a file. What is wrong is
 * said at its cell, and in words below.
 */
export function SheetGrid({ grid, draft }: Props) {
  const handle = useRef<DataGridHandle>(null);
  const at = useRef({ row: 0, column: '' });
  const [ids, setIds] = useState<string[]>([]);
  const [error, setError] = useState<Error | null>(null);
  const [pasting, setPasting] = useState(false);
  const lines = useLines(grid, draft, ids, setIds);

  const keep = (next: Line[]) => {
    if (grid.names.length > 0) {
      for (const line of next) {
        const before = lines.find((one) => one.key === line.key);
        for (const column of grid.columns) {
          const text = line.cells[column.path] ?? '';
          if ((before?.cells[column.path] ?? '') !== text)
            draft.put(`${grid.path}.${line.key}.${column.path}`, text);
        }
      }
      return;
    }
    const filled = [...next];
    while (filled.length > 0 && isEmpty(filled.at(-1))) filled.pop();
    setIds(next.map((line) => line.id));
    draft.putRows(
      grid.path,
      filled.map((line) => line.cells),
    );
  };

  const put = (pasted: Pasted) => {
    const next = lines.map((line) => ({ ...line, cells: { ...line.cells } }));
    for (const { row, cells } of pasted.rows) {
      const named = grid.names.some((name) => name.key === row);
      const index = named ? next.findIndex((line) => line.key === row) : at.current.row + Number(row);
      while (!named && index >= next.length && grid.names.length === 0) next.push(blank());
      const line = next[index];
      if (line) Object.assign(line.cells, cells);
    }
    keep(next);
    for (const [column, unit] of Object.entries(pasted.units)) draft.putUnit(`${grid.path}.${column}`, unit);
    setPasting(false);
    setError(null);
  };

  const paste = (text: string) => {
    const body = { table: grid.path, text, column: at.current.column };
    unwrap(client.POST('/api/sheet-drafts/{id}/paste', { params: { path: { id: draft.id } }, body }))
      .then(put)
      .catch(setError);
  };

  const columns = useColumns(grid, draft, paste);
  const height = Math.min(MOST_PX, 56 + ROW_PX * lines.length + 16);
  return (
    <div className="sheet-grid">
      {grid.hint && <p className="said">{grid.hint}</p>}
      <DataGrid
        ref={handle}
        aria-label={grid.label}
        columns={columns}
        rows={lines}
        rowKeyGetter={(line) => line.id}
        rowHeight={ROW_PX}
        headerRowHeight={56}
        style={{ blockSize: height }}
        className="rdg-sheet"
        onRowsChange={(next) => keep(next)}
        onActivePositionChange={({ rowIdx, column }) => {
          if (rowIdx >= 0) at.current = { row: rowIdx, column: column?.key ?? '' };
        }}
        onCellClick={({ column, setActivePosition }) => setActivePosition(column.key !== 'row')}
        onCellKeyDown={(args, event) => onKey(args, event, handle.current, lines.length)}
        onCellPaste={({ row, column }, event) => {
          const text = event.clipboardData.getData('text/plain');
          if (isTable(text) || column.key === 'row') {
            paste(text);
            return row;
          }
          return { ...row, cells: { ...row.cells, [column.key]: text.trim() } };
        }}
        onCellCopy={({ row, column }, event) => {
          event.clipboardData.setData('text/plain', row.cells[column.key] ?? '');
          event.preventDefault();
        }}
      />
      <div className="grid-tools">
        {grid.names.length === 0 && (
          <>
            <Button
              variant="outline-secondary"
              size="sm"
              onClick={() => setIds([...lines.map((line) => line.id), newId()])}
              disabled={lines.length >= grid.most}
            >
              One more row
            </Button>
            <Button
              variant="outline-secondary"
              size="sm"
              disabled={!lines.some((line) => !isEmpty(line))}
              onClick={() => keep(lines.filter((_, i) => i !== at.current.row))}
            >
              Take out the row
            </Button>
          </>
        )}
        <Button
          variant="outline-secondary"
          size="sm"
          aria-expanded={pasting}
          onClick={() => setPasting(!pasting)}
        >
          Paste a table
        </Button>
        <FileButton
          label={`File for ${grid.label}`}
          accept=".csv,.xlsx,text/csv"
          off={false}
          onFile={(file) => {
            const form = new FormData();
            form.append('file', file);
            form.append('table', grid.path);
            posted<Pasted>(`/api/sheet-drafts/${draft.id}/file`, form)
              .then((read) => {
                at.current.row = 0;
                put(read);
              })
              .catch(setError);
          }}
        >
          From a file
        </FileButton>
      </div>
      {pasting && <PasteBox onPaste={paste} />}
      <ProblemNote error={error} />
      <Faults grid={grid} draft={draft} />
    </div>
  );
}

function blank(): Line {
  return { id: newId(), key: '', label: '', cells: {} };
}

const isEmpty = (line: Line | undefined): boolean =>
  !line || Object.values(line.cells).every((text) => !text.trim());
const isTable = (text: string): boolean => /\t|\n./.test(text.trim());

/** The rows as they are shown: those that are always there, or those typed and an empty one below them. */
function useLines(grid: AskedGrid, draft: Draft, ids: string[], setIds: (ids: string[]) => void): Line[] {
  const { fields, grids } = draft.typed;
  const typed = grids[grid.path] ?? [];
  const wanted = grid.names.length > 0 ? 0 : Math.min(grid.most, Math.max(typed.length + 1, ids.length, 3));
  if (ids.length < wanted) setIds([...ids, ...Array.from({ length: wanted - ids.length }, newId)]);
  return useMemo(() => {
    if (grid.names.length > 0)
      return grid.names.map((name) => ({
        id: name.key,
        key: name.key,
        label: name.number ? `${name.number} ${name.name}` : name.name,
        cells: Object.fromEntries(
          grid.columns.map((c) => [c.path, fields[`${grid.path}.${name.key}.${c.path}`] ?? '']),
        ),
      }));
    return ids.map((id, i) => ({ id, key: '', label: String(i + 1), cells: typed[i] ?? {} }));
  }, [grid, fields, typed, ids]);
}

function useColumns(grid: AskedGrid, draft: Draft, paste: (text: string) => void): Column<Line>[] {
  const { problems, state, typed } = draft;
  return useMemo(() => {
    const place = (line: Line, column: string) =>
      grid.names.length > 0
        ? `${grid.path}.${line.key}.${column}`
        : `${grid.path}[${Number(line.label) - 1}].${column}`;
    const remarks = new Set(state.remarks.map((one) => one.path));
    const first: Column<Line> = {
      key: 'row',
      name: '',
      frozen: true,
      width: grid.names.length > 0 ? 210 : 44,
      renderCell: ({ row }) => row.label,
      cellClass: 'row-name',
    };
    return [
      first,
      ...grid.columns.map((column): Column<Line> => ({
        key: column.path,
        name: column.label,
        minWidth: widthOf(column),
        resizable: true,
        editable: true,
        renderHeaderCell: () => <Head column={column} path={`${grid.path}.${column.path}`} draft={draft} />,
        renderCell: ({ row }) => nameOf(column, row.cells[column.path] ?? ''),
        renderEditCell: (props) => <Editor {...props} column={props.column} ask={column} paste={paste} />,
        cellClass: (line) => {
          const at = place(line, column.path);
          const found = problems.get(at);
          const whole = problems.get(at.slice(0, at.length - column.path.length - 1));
          if ((found && !found.missing) || (whole && !whole.missing && line.cells[column.path]))
            return 'wrong';
          return remarks.has(at) ? 'odd' : undefined;
        },
      })),
    ];
    // The heads show units: they are made anew when one is chosen.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [grid, problems, state.remarks, typed.units]);
}

const nameOf = (column: Ask, text: string): string =>
  column.many === 'one' ? (column.choices.find((one) => one.key === text)?.name ?? text) : text;

function widthOf(column: Ask): number {
  if (column.kind === 'yes' || column.path === 'page') return 70;
  if (column.many === 'range' || column.many === 'counts') return 150;
  if (column.kind === 'quantity' || column.kind === 'number') return 110;
  return column.many === 'list' ? 170 : 140;
}

interface HeadProps {
  column: Ask;
  path: string;
  draft: Draft;
}

/** What a column is, and the unit its bare numbers are in. */
function Head({ column, path, draft }: HeadProps) {
  return (
    <span className="grid-head" title={column.hint}>
      <span>{column.label}</span>
      {column.units.length > 0 && (
        <select
          aria-label={`Unit of ${column.label}`}
          value={draft.typed.units[path] ?? ''}
          onChange={(event) => draft.putUnit(path, event.target.value)}
        >
          <option value="">{column.unit}</option>
          {unitsOf(column, draft.typed.units[path])
            .filter((unit) => unit !== column.unit)
            .map((unit) => (
              <option key={unit} value={unit}>
                {unit}
              </option>
            ))}
        </select>
      )}
    </span>
  );
}

/** A unit as it stood over a pasted column is one of those to choose, however it was spelled. */
const unitsOf = (column: Ask, chosen: string | undefined): string[] =>
  chosen && !column.units.includes(chosen) ? [...column.units, chosen] : column.units;

interface EditorProps extends RenderEditCellProps<Line> {
  ask: Ask;
  paste: (text: string) => void;
}

/** A cell that is typed in. A table pasted into it goes into the cells from there on. */
function Editor({ row, column, onRowChange, onClose, ask, paste }: EditorProps) {
  const list = `list-${ask.path}-${row.id}`;
  const put = (text: string) => onRowChange({ ...row, cells: { ...row.cells, [column.key]: text } });
  const onPaste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    if (!isTable(text)) return;
    event.preventDefault();
    onClose(false);
    paste(text);
  };
  return (
    <>
      <input
        className="rdg-text-editor"
        // eslint-disable-next-line jsx-a11y/no-autofocus -- a cell that is typed in has the cursor
        autoFocus
        aria-label={`${ask.label}, ${row.label}`}
        value={row.cells[column.key] ?? ''}
        maxLength={2000}
        list={ask.choices.length > 0 ? list : undefined}
        autoComplete="off"
        onFocus={(event) => event.target.select()}
        onChange={(event) => put(event.target.value)}
        onBlur={() => onClose(true, false)}
        onPaste={onPaste}
      />
      {ask.choices.length > 0 && (
        <datalist id={list}>
          {ask.choices.map((one) => (
            <option key={one.key} value={one.name} />
          ))}
        </datalist>
      )}
    </>
  );
}

/** Enter and the arrows up and down end a cell that is typed in, and go on in the next row. */
function onKey(
  args: CellKeyDownArgs<Line>,
  event: CellKeyboardEvent,
  handle: DataGridHandle | null,
  rows: number,
): void {
  if (args.mode !== 'EDIT') return;
  const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0;
  if (!step) return;
  event.preventDefault();
  event.preventGridDefault();
  args.onClose(true, false);
  const rowIdx = Math.min(Math.max(args.rowIdx + step, 0), rows - 1);
  handle?.setActivePosition({ idx: args.column.idx, rowIdx }, { shouldFocus: true });
}

/** Where there is no clipboard to be had by keys: a tablet, a page without TLS. */
function PasteBox({ onPaste }: { onPaste: (text: string) => void }) {
  const [text, setText] = useState('');
  return (
    <div className="paste-box">
      <label>
        Rows as they come from a spreadsheet or the text of a PDF; a line of headings above puts the columns
        in order
        <textarea rows={6} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      <Button variant="outline-primary" disabled={!text.trim()} onClick={() => onPaste(text)}>
        Put them into the table
      </Button>
    </div>
  );
}

/** What is wrong or remarkable in a table, in words, each a way to its cell. */
function Faults({ grid, draft }: Props) {
  const of = (path: string) =>
    path === grid.path || path.startsWith(`${grid.path}.`) || path.startsWith(`${grid.path}[`);
  const wrong = draft.state.problems.filter((one) => of(one.path) && !one.missing);
  const missing = draft.state.problems.filter((one) => of(one.path) && one.missing);
  const remarks = draft.state.remarks.filter((one) => of(one.path));
  if (!wrong.length && !missing.length && !remarks.length) return null;
  return (
    <ul className="faults" role="status">
      {wrong.slice(0, 12).map((one) => (
        <li key={one.path} className="wrong">
          <b>{wordsOf(grid, one.path)}:</b> {one.problem} {one.hint}
        </li>
      ))}
      {wrong.length > 12 && <li>and {wrong.length - 12} more.</li>}
      {remarks.slice(0, 12).map((one) => (
        <li key={one.path} className="odd">
          <b>{wordsOf(grid, one.path)}:</b> {one.text}
        </li>
      ))}
      {missing.length > 0 && (
        <li>
          Not there yet:{' '}
          {missing
            .slice(0, 8)
            .map((one) => wordsOf(grid, one.path))
            .join('; ')}
          .
        </li>
      )}
    </ul>
  );
}

/** A place in a table as a person says it: row 3, viscosity. */
export function wordsOf(grid: AskedGrid, path: string): string {
  const rest = path.slice(grid.path.length);
  const listed = /^\[(\d+)\]\.?(.*)$/.exec(rest);
  const [key = '', ...below] = rest.slice(1).split('.');
  const row = listed
    ? `row ${Number(listed[1]) + 1}`
    : (grid.names.find((one) => one.key === key)?.name ?? '');
  const under = (listed ? (listed[2] ?? '') : below.join('.')).replace(/\[\d+\]/g, '');
  const column = grid.columns.find((one) => one.path === under)?.label.toLowerCase() ?? under;
  return [row, column].filter(Boolean).join(', ') || grid.label;
}
