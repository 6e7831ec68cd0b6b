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

/**
 * Text being typed, which keeps its meaning when the unit is switched: a bare number is given the unit it was typed in.
 */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useDraft(initial = ''): [string, (text: string) => void] {
  const { unit } = useUnit();
  const [draft, setDraft] = useState({ text: initial, unit });
  if (draft.unit !== unit) {
    const bare = /^\s*[\d.,/\s-]*\d[\d.,/]*\s*$/.test(draft.text);
    setDraft({ text: bare ? `${draft.text.trim()} ${draft.unit}` : draft.text, unit });
  }
  const set = useCallback((text: string) => setDraft({ text, unit }), [unit]);
  return [draft.text, set];
}
