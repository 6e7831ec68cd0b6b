import { useQuery } from '@tanstack/react-query';
import { createContext, useCallback, useContext, useEffect, useMemo, type ReactNode } from 'react';
import { meQuery, settingsQuery } from '../api/queries';
import type { Unit } from '../api/client';
import { ProblemNote } from './ProblemNote';
import { writeDaysAs } from './time';
import { useUnit } from './unit';

/** What the works decided and who is at this page, as they were when it was loaded: what is typed here goes by them. */
export interface Works {
  mark: 'point' | 'comma';
  person: string;
  /** The unit of a bare number of each kind, as it is written beside a field. */
  signs: Record<string, Record<Unit, string>>;
}

/** How something was typed: it goes with the keystroke, whatever is switched before it is sent. */
export interface Entered {
  unit: Unit;
  mark: 'point' | 'comma';
  person: string;
  meant: boolean;
}

// eslint-disable-next-line react-refresh/only-export-components -- tests put a works of their own into it
export const WorksContext = createContext<Works | null>(null);

/** Nothing can be typed before it is known how it will be read. */
export function WorksProvider({ children }: { children: ReactNode }) {
  const me = useQuery(meQuery);
  const settings = useQuery(settingsQuery);
  const { begun, begin } = useUnit();
  const usual = settings.data?.lengths;
  useEffect(() => {
    if (usual) begin(usual as Unit);
  }, [usual, begin]);
  const works = useMemo<Works | null>(
    () =>
      me.data && settings.data
        ? {
            mark: settings.data.decimal_mark === 'comma' ? 'comma' : 'point',
            person: me.data.username,
            signs: Object.fromEntries(
              settings.data.units.map((u) => [u.key, { mm: u.mm, in: u.inches, thou: u.thou }]),
            ),
          }
        : null,
    [me.data, settings.data],
  );
  if (settings.data) writeDaysAs(settings.data.date_form, settings.data.time_zone);
  if (!works) return <ProblemNote error={me.error ?? settings.error} />;
  // Nothing is asked for in one unit system, to be asked for again in that of the works.
  if (!begun) return null;
  return <WorksContext.Provider value={works}>{children}</WorksContext.Provider>;
}

// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useWorks(): Works {
  const works = useContext(WorksContext);
  if (!works) throw new Error('This is shown inside the works only.');
  return works;
}

/** The unit of a bare number of a kind, as it is written beside its field, in the unit system that is on. */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useSign(kind: string): string {
  const { unit } = useUnit();
  return useWorks().signs[kind]?.[unit] ?? '';
}

/** Tells how what is typed now is typed. */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useEntered(): () => Entered {
  const { unit } = useUnit();
  const { mark, person } = useWorks();
  return useCallback(() => ({ unit, mark, person, meant: false }), [unit, mark, person]);
}

/** Now, with the offset of this device's zone: 2026-03-31T14:05:00.000+02:00. */
// eslint-disable-next-line react-refresh/only-export-components -- the stamp belongs beside how it was typed
export function nowHere(now = new Date()): string {
  const ahead = -now.getTimezoneOffset();
  const two = (n: number) => String(Math.trunc(Math.abs(n))).padStart(2, '0');
  const local = new Date(now.getTime() + ahead * 60_000).toISOString().slice(0, -1);
  return `${local}${ahead < 0 ? '-' : '+'}${two(ahead / 60)}:${two(ahead % 60)}`;
}
