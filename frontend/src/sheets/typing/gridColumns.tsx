/* eslint-disable react-refresh/only-export-components -- the columns of a grid are made of their heads and editors */
import { useMemo, type ClipboardEvent } from 'react';
import type { Column, RenderEditCellProps } from 'react-data-grid';
import type { Ask, AskedGrid } from '../../api/client';
import { isTable, placeOf, type Line } from './gridLines';
import type { Draft } from './useDraft';

const NAME_PX = 172;
const NUMBER_PX = 40;

export function useColumns(grid: AskedGrid, draft: Draft, paste: (text: string) => void): Column<Line>[] {
  const { problems, state, typed } = draft;
  return useMemo(() => {
    const remarks = new Set(state.remarks.map((one) => one.path));
    const first: Column<Line> = {
      key: 'row',
      name: '',
      frozen: true,
      width: grid.names.length > 0 ? NAME_PX : NUMBER_PX,
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
        renderHeaderCell: ({ tabIndex }) => (
          <Head column={column} path={`${grid.path}.${column.path}`} draft={draft} tabIndex={tabIndex} />
        ),
        renderCell: ({ row }) => nameOf(column, row.cells[column.path] ?? ''),
        renderEditCell: (props) => <Editor {...props} column={props.column} ask={column} paste={paste} />,
        cellClass: (line) => {
          const at = placeOf(grid, line, column.path);
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
  if (column.kind === 'yes' || column.path === 'page') return 60;
  if (column.many === 'range' || column.many === 'counts') return 118;
  if (column.kind === 'quantity' || column.kind === 'number') return 92;
  return column.many === 'list' ? 150 : 104;
}

interface HeadProps {
  column: Ask;
  path: string;
  draft: Draft;
  /** The grid says which of its cells the keyboard is in. */
  tabIndex: number;
}

/** What a column is, and the unit its bare numbers are in. */
function Head({ column, path, draft, tabIndex }: HeadProps) {
  return (
    <span className="grid-head" title={column.hint}>
      <span>{column.label}</span>
      {column.units.length > 0 && (
        <select
          tabIndex={tabIndex}
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
