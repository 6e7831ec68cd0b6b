import { useLayoutEffect, useRef, useState, type RefObject } from 'react';
import { flushSync } from 'react-dom';
import { DataGrid, type CellKeyboardEvent, type CellKeyDownArgs, type DataGridHandle } from 'react-data-grid';
import 'react-data-grid/lib/styles.css';
import './iterators';
import { client, unwrap, type AskedGrid, type Pasted } from '../../api/client';
import { ProblemNote } from '../../app/ProblemNote';
import { Faults } from './Faults';
import { useColumns } from './gridColumns';
import { blank, isTable, keepLines, useLines, type Line } from './gridLines';
import { GridTools } from './GridTools';
import type { Draft, Row } from './useDraft';

const ROW_PX = 40;
const HEAD_PX = 76;
const MOST_PX = 460;
const BARS_PX = 16;

interface Props {
  grid: AskedGrid;
  draft: Draft;
}

/**
 * A table typed as the manual prints it: arrows and Tab, a unit over each column, pasted or read from a file. What is wrong is
 * marked at its cell, and said in words below.
 */
export function SheetGrid({ grid, draft }: Props) {
  const handle = useRef<DataGridHandle>(null);
  const { lines, keep, atRef, nowRef, paste, read, error } = useTable(grid, draft);
  const columns = useColumns(grid, draft, paste);
  return (
    <div className="sheet-grid">
      <p className="said">{grid.hint} Arrows and Tab go from cell to cell, Escape leaves the table.</p>
      <DataGrid
        ref={handle}
        aria-label={grid.label}
        columns={columns}
        rows={lines}
        rowKeyGetter={(line) => line.id}
        rowHeight={ROW_PX}
        headerRowHeight={HEAD_PX}
        style={{ blockSize: Math.min(MOST_PX, HEAD_PX + ROW_PX * lines.length + BARS_PX) }}
        className="rdg-sheet"
        onRowsChange={keep}
        onActivePositionChange={({ rowIdx, column }) => {
          if (rowIdx >= 0) atRef.current = { row: rowIdx, column: column?.key ?? '' };
        }}
        onCellClick={({ column, setActivePosition }) => setActivePosition(column.key !== 'row')}
        onCellKeyDown={(args, event) => onKey(args, event, handle, nowRef)}
        onCellPaste={({ row: line, column }, event) => {
          const text = event.clipboardData.getData('text/plain');
          if (!isTable(text) && column.key !== 'row')
            return { ...line, cells: { ...line.cells, [column.key]: text.trim() } };
          paste(text);
          return line;
        }}
        onCellCopy={({ row: line, column }, event) => {
          event.clipboardData.setData('text/plain', line.cells[column.key] ?? '');
          event.preventDefault();
        }}
      />
      <GridTools
        grid={grid}
        draftId={draft.id}
        onInsert={() => keep(lines.toSpliced(atRef.current.row, 0, blank()))}
        onTakeOut={() => keep(lines.toSpliced(atRef.current.row, 1))}
        onPaste={paste}
        onRead={(answer) => {
          atRef.current = { row: 0, column: '' };
          read(answer, 0);
        }}
      />
      <ProblemNote error={error} />
      <Faults grid={grid} draft={draft} />
    </div>
  );
}

/** The rows of a table, where the cursor is in it, and how a pasted one gets into it. */
function useTable(grid: AskedGrid, draft: Draft) {
  const atRef = useRef({ row: 0, column: '' });
  const [error, setError] = useState<Error | null>(null);
  const { lines, setIds } = useLines(grid, draft);
  const keep = (next: Line[]) => {
    if (grid.names.length === 0) setIds(next.map((line) => line.id));
    keepLines(grid, draft, lines, next);
  };
  // An answer comes later: it goes into the rows as they are then, from where the cursor was.
  const { units } = draft.typed;
  const nowRef = useRef({ lines, keep, units });
  useLayoutEffect(() => {
    nowRef.current = { lines, keep, units };
  });
  const read = (answer: Promise<Pasted>, from: number) => {
    answer.then((pasted) => {
      const { lines: now, keep: keepNow, units: over } = nowRef.current;
      const problem = refused(pasted, grid, now, from, over);
      if (problem) {
        setError(new Error(`${problem} Nothing was put in.`));
        return;
      }
      keepNow(withPasted(pasted, grid, now, from));
      for (const [column, unit] of Object.entries(pasted.units))
        draft.putUnit(`${grid.path}.${column}`, unit);
      setError(null);
    }, setError);
  };
  const paste = (text: string) => {
    const { row, column } = atRef.current;
    const body = { table: grid.path, text, column };
    const answer = client.POST('/api/sheet-drafts/{id}/paste', { params: { path: { id: draft.id } }, body });
    read(unwrap(answer), row);
  };
  return { lines, keep, atRef, nowRef, paste, read, error };
}

/** Which row each pasted one goes into: that of its name, or so far below where the cursor was. */
const into = (pasted: Pasted, lines: Line[], from: number): { index: number; cells: Row }[] =>
  pasted.rows.map(({ row, cells }) => {
    const named = lines.findIndex((line) => line.key !== '' && line.key === row);
    return { index: named >= 0 ? named : from + Number(row), cells };
  });

/** Rows with what was pasted into them. */
function withPasted(pasted: Pasted, grid: AskedGrid, lines: Line[], from: number): Line[] {
  const next = lines.map((line) => ({ ...line, cells: { ...line.cells } }));
  for (const { index, cells } of into(pasted, lines, from)) {
    while (index >= next.length && grid.names.length === 0) next.push(blank());
    const line = next[index];
    if (line) Object.assign(line.cells, cells);
  }
  return next;
}

/** Why a pasted table cannot go in; empty where it can. */
function refused(
  pasted: Pasted,
  grid: AskedGrid,
  lines: Line[],
  from: number,
  units: Record<string, string>,
): string {
  const placed = into(pasted, lines, from);
  const most = Math.max(...placed.map(({ index }) => index + 1));
  if (grid.names.length === 0 && most > grid.most)
    return `From here it would have ${most} rows, and it can have ${grid.most}.`;
  // A unit over a column holds for all of it: numbers that stay would be read in the unit of what is pasted.
  for (const column of grid.columns) {
    const now = units[`${grid.path}.${column.path}`] || column.unit;
    const unit = pasted.units[column.path] ?? now;
    const over = new Set(placed.filter(({ cells }) => column.path in cells).map(({ index }) => index));
    if (unit !== now && lines.some((line, i) => !over.has(i) && line.cells[column.path]?.trim()))
      return `${column.label} has numbers in ${now} already, and what is pasted is in ${unit}.`;
  }
  return '';
}

/** Enter and the arrows up and down end a cell that is typed in, and go on in the next row. Escape leaves the table. */
function onKey(
  args: CellKeyDownArgs<Line>,
  event: CellKeyboardEvent,
  handle: RefObject<DataGridHandle | null>,
  nowRef: RefObject<{ lines: Line[] }>,
): void {
  if (args.mode !== 'EDIT') {
    if (event.key === 'Escape')
      event.currentTarget.closest('.sheet-grid')?.querySelector<HTMLElement>('.grid-tools button')?.focus();
    return;
  }
  const step = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0;
  if (!step) return;
  event.preventDefault();
  event.preventGridDefault();
  // At once, with the row that is then below: the next key is already on its way.
  flushSync(() => args.onClose(true, true));
  const rowIdx = Math.min(Math.max(args.rowIdx + step, 0), nowRef.current.lines.length - 1);
  if (rowIdx !== args.rowIdx)
    handle.current?.setActivePosition({ idx: args.column.idx, rowIdx }, { shouldFocus: true });
}
