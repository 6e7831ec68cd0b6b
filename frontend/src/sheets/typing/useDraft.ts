import { useEffect, useMemo, useRef, useState } from 'react';
import { ApiError, client, unwrap, type DraftPage, type DraftState } from '../../api/client';
import { useEntered, type Entered } from '../../app/works';

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

const nothing = (): Typed => ({ fields: {}, grids: {}, units: {} });
const isNothing = (typed: Typed): boolean =>
  Object.keys({ ...typed.fields, ...typed.grids, ...typed.units }).length === 0;
const over = (older: Typed, newer: Typed): Typed => ({
  fields: { ...older.fields, ...newer.fields },
  grids: { ...older.grids, ...newer.grids },
  units: { ...older.units, ...newer.units },
});

interface Told {
  onSaved: (state: DraftState) => void;
  onError: (error: Error | null) => void;
  onWaiting: (waiting: boolean) => void;
}

/** What was typed and is not saved yet: sent in its order, a moment after the last key; again where the server does not answer. */
class Sender {
  private changed = nothing();
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private failed: Error | null = null;

  constructor(
    private readonly id: number,
    private version: number,
    private readonly entered: () => Entered,
    private readonly told: Told,
  ) {}

  put(typed: Partial<Typed>): void {
    this.changed = over(this.changed, { ...nothing(), ...typed });
    this.told.onWaiting(true);
    this.later(AFTER_MS);
  }

  async send(): Promise<void> {
    clearTimeout(this.timer);
    while (this.sending) await this.sending;
    if (isNothing(this.changed)) return;
    const sent = this.changed;
    this.changed = nothing();
    this.sending = this.save(sent);
    await this.sending;
    this.sending = null;
    this.told.onWaiting(!isNothing(this.changed));
  }

  /** Sends what is left, and answers the version that has all of it. Rejects where it could not be saved. */
  async saved(): Promise<number> {
    await this.send();
    if (this.failed) throw this.failed;
    return this.version;
  }

  /** Their typing with what is not saved here over it, which is then sent. */
  async join(): Promise<{ typed: Typed; state: DraftState } | null> {
    try {
      const path = { id: this.id };
      const theirs = await unwrap(client.GET('/api/sheet-drafts/{id}', { params: { path } }));
      this.version = theirs.state.version;
      this.fails(null);
      return { typed: over(typedIn(theirs), this.changed), state: theirs.state };
    } catch (failed) {
      this.fails(failed as Error);
      return null;
    } finally {
      void this.send();
    }
  }

  private async save(sent: Typed): Promise<void> {
    const grids = Object.entries(sent.grids).map(([table, rows]) => ({
      table,
      rows: rows.map((cells) => ({ cells })),
    }));
    const body = { version: this.version, fields: sent.fields, units: sent.units, grids, ...this.entered() };
    try {
      const saved = await unwrap(
        client.PUT('/api/sheet-drafts/{id}', { params: { path: { id: this.id } }, body }),
      );
      this.version = saved.version;
      this.told.onSaved(saved);
      this.fails(null);
    } catch (failed) {
      // What was typed since is newer than what could not be sent.
      this.changed = over(sent, this.changed);
      this.fails(failed as Error);
      if (!(failed instanceof ApiError)) this.later(AGAIN_MS);
    }
  }

  private fails(failed: Error | null): void {
    this.failed = failed;
    this.told.onError(failed);
  }

  private later(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.send(), ms);
  }
}

/** A sheet that is being typed: what is typed shows at once, and is saved by itself. `onForm` when something else is asked then. */
export function useDraft(page: DraftPage, onForm: () => void) {
  const { id } = page.state;
  const entered = useEntered();
  const [typed, setTyped] = useState(() => typedIn(page));
  const [state, setState] = useState<DraftState>(page.state);
  const [error, setError] = useState<Error | null>(null);
  const [waiting, setWaiting] = useState(false);
  const [sender] = useState(
    () =>
      new Sender(id, page.state.version, entered, {
        onSaved: setState,
        onError: setError,
        onWaiting: setWaiting,
      }),
  );
  const asked = useRef(page.state.form);
  useEffect(() => {
    if (state.form === asked.current) return;
    asked.current = state.form;
    onForm();
  }, [state.form, onForm]);
  useEffect(() => {
    const stay = (event: BeforeUnloadEvent) => {
      if (waiting) event.preventDefault();
    };
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [waiting]);
  // Gone to another page, what was typed goes on its way.
  useEffect(() => () => void sender.send(), [sender]);

  const put = (change: Partial<Typed>) => {
    sender.put(change);
    setTyped((now) => over(now, { ...nothing(), ...change }));
  };
  const join = async () => {
    const joined = await sender.join();
    if (!joined) return;
    setTyped(joined.typed);
    setState(joined.state);
  };
  const problems = useMemo(() => new Map(state.problems.map((one) => [one.path, one])), [state.problems]);
  return {
    id,
    typed,
    state,
    problems,
    error,
    waiting,
    put: (path: string, text: string) => put({ fields: { [path]: text } }),
    putRows: (table: string, rows: Row[]) => put({ grids: { [table]: rows } }),
    putUnit: (column: string, unit: string) => put({ units: { [column]: unit } }),
    saved: () => sender.saved(),
    join,
  };
}

export type Draft = ReturnType<typeof useDraft>;
