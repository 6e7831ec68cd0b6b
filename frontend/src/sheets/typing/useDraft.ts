import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { ApiError, client, unwrap, type DraftPage, type DraftState } from '../../api/client';
import { useEntered } from '../../app/works';

export type Row = Record<string, string>;

interface Typed {
  fields: Record<string, string>;
  grids: Record<string, Row[]>;
  units: Record<string, string>;
}

const AFTER_MS = 700;
const AGAIN_MS = 4_000;

const typedIn = (page: DraftPage): Typed => ({
  fields: page.fields,
  grids: Object.fromEntries(page.grids.map((grid) => [grid.table, grid.rows])),
  units: page.units,
});

/** A sheet that is being typed: what is typed shows at once, and is saved by itself a moment later; what could not be is sent again. */
export function useDraft(page: DraftPage, onForm: () => void) {
  const id = page.state.id;
  const entered = useEntered();
  const [typed, setTyped] = useState(() => typedIn(page));
  const [state, setState] = useState<DraftState>(page.state);
  const [error, setError] = useState<Error | null>(null);
  const [waiting, setWaiting] = useState(false);
  const version = useRef(page.state.version);
  const form = useRef(page.state.form);
  const changed = useRef<Typed>({ fields: {}, grids: {}, units: {} });
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const sending = useRef<Promise<void> | null>(null);
  const told = useRef(onForm);
  useEffect(() => {
    told.current = onForm;
  });

  const send = useCallback(async (): Promise<void> => {
    clearTimeout(timer.current);
    if (sending.current) await sending.current;
    const sent = changed.current;
    if (!Object.keys({ ...sent.fields, ...sent.grids, ...sent.units }).length) return;
    changed.current = { fields: {}, grids: {}, units: {} };
    const body = {
      version: version.current,
      fields: sent.fields,
      units: sent.units,
      grids: Object.entries(sent.grids).map(([table, rows]) => ({
        table,
        rows: rows.map((cells) => ({ cells })),
      })),
      ...entered(),
    };
    sending.current = unwrap(client.PUT('/api/sheet-drafts/{id}', { params: { path: { id } }, body }))
      .then((saved) => {
        version.current = saved.version;
        setState(saved);
        setError(null);
        if (saved.form !== form.current) {
          form.current = saved.form;
          told.current();
        }
      })
      .catch((failed: unknown) => {
        // What was typed since is newer than what could not be sent.
        const newer = changed.current;
        changed.current = {
          fields: { ...sent.fields, ...newer.fields },
          grids: { ...sent.grids, ...newer.grids },
          units: { ...sent.units, ...newer.units },
        };
        setError(failed as Error);
        if (!(failed instanceof ApiError)) timer.current = setTimeout(() => void send(), AGAIN_MS);
      })
      .finally(() => {
        sending.current = null;
        const left = changed.current;
        setWaiting(Object.keys({ ...left.fields, ...left.grids, ...left.units }).length > 0);
      });
    await sending.current;
  }, [entered, id]);

  const soon = useCallback(() => {
    setWaiting(true);
    clearTimeout(timer.current);
    timer.current = setTimeout(() => void send(), AFTER_MS);
  }, [send]);

  useEffect(() => {
    const stay = (event: BeforeUnloadEvent) => {
      if (waiting) event.preventDefault();
    };
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [waiting]);
  // Gone to another page, what was typed goes on its way.
  useEffect(() => () => void send(), [send]);

  const put = useCallback(
    (path: string, text: string) => {
      changed.current.fields[path] = text;
      setTyped((now) => ({ ...now, fields: { ...now.fields, [path]: text } }));
      soon();
    },
    [soon],
  );
  const putRows = useCallback(
    (table: string, rows: Row[]) => {
      changed.current.grids[table] = rows;
      setTyped((now) => ({ ...now, grids: { ...now.grids, [table]: rows } }));
      soon();
    },
    [soon],
  );
  const putUnit = useCallback(
    (column: string, unit: string) => {
      changed.current.units[column] = unit;
      setTyped((now) => ({ ...now, units: { ...now.units, [column]: unit } }));
      soon();
    },
    [soon],
  );
  const problems = useMemo(() => new Map(state.problems.map((one) => [one.path, one])), [state.problems]);
  return { id, typed, state, problems, error, waiting, put, putRows, putUnit, send };
}

export type Draft = ReturnType<typeof useDraft>;
