import { useMemo, useState } from 'react';
import { newId, type AskedGrid } from '../../api/client';
import type { Draft, Row } from './useDraft';

export interface Line {
  /** Of the grid alone: rows are told apart by it while they move. */
  id: string;
  /** The key of a row that is always there; empty for the others. */
  key: string;
  label: string;
  cells: Row;
}

const FIRST_ROWS = 3;
const NONE: Row[] = [];

export const blank = (): Line => ({ id: newId(), key: '', label: '', cells: {} });
export const isEmpty = (line: Line | undefined): boolean =>
  !line || Object.values(line.cells).every((text) => !text.trim());
/** More than one cell. */
export const isTable = (text: string): boolean => /\t|\n./.test(text.trim());

/** The rows as they are shown: those that are always there, or those typed and an empty one below them. */
export function useLines(grid: AskedGrid, draft: Draft) {
  const { fields, grids } = draft.typed;
  const typed = grids[grid.path] ?? NONE;
  const [ids, setIds] = useState<string[]>([]);
  const wanted = grid.names.length > 0 ? 0 : Math.min(grid.most, Math.max(typed.length + 1, FIRST_ROWS));
  if (ids.length < wanted) setIds([...ids, ...Array.from({ length: wanted - ids.length }, newId)]);
  const lines = useMemo<Line[]>(() => {
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
  return { lines, setIds };
}

/** Keeps rows as they are now: cells of those that are always there, or all rows down to the last that is filled. */
export function keepLines(grid: AskedGrid, draft: Draft, before: Line[], next: Line[]): void {
  if (grid.names.length === 0) {
    const filled = [...next];
    while (filled.length > 0 && isEmpty(filled.at(-1))) filled.pop();
    draft.putRows(
      grid.path,
      filled.map((line) => line.cells),
    );
    return;
  }
  for (const line of next) {
    const was = before.find((one) => one.key === line.key);
    for (const { path } of grid.columns) {
      const text = line.cells[path] ?? '';
      if ((was?.cells[path] ?? '') !== text) draft.put(`${grid.path}.${line.key}.${path}`, text);
    }
  }
}

/** Where a cell is in the file. */
export const placeOf = (grid: AskedGrid, line: Line, column: string): string =>
  grid.names.length > 0
    ? `${grid.path}.${line.key}.${column}`
    : `${grid.path}[${Number(line.label) - 1}].${column}`;

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
