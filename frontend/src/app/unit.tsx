import { createContext, useCallback, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import type { Unit } from '../api/client';

interface UnitChoice {
  unit: Unit;
  toggle: () => void;
}

const UnitContext = createContext<UnitChoice>({ unit: 'mm', toggle: () => undefined });

/** Millimetres or inches, everywhere at once; kept on this bench. */
export function UnitProvider({ children }: { children: ReactNode }) {
  const [unit, setUnit] = useState<Unit>(() => (localStorage.getItem('unit') === 'in' ? 'in' : 'mm'));
  useEffect(() => localStorage.setItem('unit', unit), [unit]);
  const toggle = useCallback(() => setUnit((now) => (now === 'mm' ? 'in' : 'mm')), []);
  const choice = useMemo(() => ({ unit, toggle }), [unit, toggle]);
  return <UnitContext.Provider value={choice}>{children}</UnitContext.Provider>;
}

// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export const useUnit = (): UnitChoice => useContext(UnitContext);

/** A bare number is given the unit it was typed in when the unit is switched. */
function inUnit(text: string, unit: Unit): string {
  return /^\s*[\d.,/\s-]*\d[\d.,/]*\s*$/.test(text) ? `${text.trim()} ${unit}` : text;
}

/** Several texts being typed, by name, each as `useDraft` keeps one. */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useDrafts(
  initial: Record<string, string> = {},
): [Record<string, string>, (name: string, text: string) => void] {
  const { unit } = useUnit();
  const [drafts, setDrafts] = useState({ texts: initial, unit });
  if (drafts.unit !== unit) {
    const texts = Object.fromEntries(
      Object.entries(drafts.texts).map(([name, text]) => [name, inUnit(text, drafts.unit)]),
    );
    setDrafts({ texts, unit });
  }
  const set = useCallback(
    (name: string, text: string) =>
      setDrafts((now) => ({ texts: { ...now.texts, [name]: text }, unit: now.unit })),
    [],
  );
  return [drafts.texts, set];
}

/**
 * Text being typed, which keeps its meaning when the unit is switched: a bare number is given the unit it was typed in.
 */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useDraft(initial = ''): [string, (text: string) => void] {
  const { unit } = useUnit();
  const [draft, setDraft] = useState({ text: initial, unit });
  if (draft.unit !== unit) {
    setDraft({ text: inUnit(draft.text, draft.unit), unit });
  }
  const set = useCallback((text: string) => setDraft({ text, unit }), [unit]);
  return [draft.text, set];
}
