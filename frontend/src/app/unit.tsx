import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import type { Unit } from '../api/client';

interface UnitChoice {
  unit: Unit;
  /** What stands beside millimetres in this works: inches, or thousandths of them. */
  other: Exclude<Unit, 'mm'>;
  /** It is known what the works begins with. */
  begun: boolean;
  toggle: () => void;
  /** What the works begins with; a browser in which somebody has chosen stays with millimetres or the other. */
  begin: (usual: Unit) => void;
}

const UnitContext = createContext<UnitChoice>({
  unit: 'mm',
  other: 'in',
  begun: false,
  toggle: () => undefined,
  begin: () => undefined,
});

/** Millimetres, or what the works has beside them, everywhere at once; kept on this bench. */
export function UnitProvider({ children }: { children: ReactNode }) {
  const [usual, setUsual] = useState<Unit | null>(null);
  const [chosen, setChosen] = useState(() => localStorage.getItem('unit'));
  const isMetric = (chosen ?? usual ?? 'mm') === 'mm';
  const toggle = useCallback(() => {
    const next = isMetric ? 'other' : 'mm';
    localStorage.setItem('unit', next);
    setChosen(next);
  }, [isMetric]);
  const other = usual === 'thou' ? 'thou' : 'in';
  const choice = useMemo<UnitChoice>(
    () => ({ unit: isMetric ? 'mm' : other, other, begun: usual !== null, toggle, begin: setUsual }),
    [isMetric, other, usual, toggle],
  );
  return <UnitContext.Provider value={choice}>{children}</UnitContext.Provider>;
}

// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export const useUnit = (): UnitChoice => useContext(UnitContext);

/** Text as it was typed, with the unit a bare number was in then. */
export interface Draft {
  text: string;
  sign: string;
}

/** A bare number, several with spaces between, or a thickness with its count. */
const BARE = /^(\s*[\d.,/⁄¼-¾⅐-⅞\s'’-]*[\d¼-¾⅐-⅞][\d.,/]*)(\s*[x×]\s*\d+)?\s*$/i;

/** A draft as it stands now: bare numbers typed in another unit carry that unit, so that they keep their meaning. */
// eslint-disable-next-line react-refresh/only-export-components -- a rule belongs beside the hooks that follow it
export function carried({ text, sign }: Draft, now: string): string {
  if (sign === now) return text;
  const pieces = text.split(';').map((piece) => BARE.exec(piece));
  if (!pieces.every((piece) => piece !== null)) return text;
  return pieces.map(([, size = '', count = '']) => `${size.trim()} ${sign}${count}`).join('; ');
}

/** Several texts being typed, by name, each as `useDraft` keeps one; `signOf` tells the unit each is in now, lengths if it does not. */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useDrafts(
  initial: Record<string, string> = {},
  signOf?: (name: string) => string | undefined,
): [Record<string, string>, (name: string, text: string) => void] {
  const { unit: length } = useUnit();
  const now = (name: string) => signOf?.(name) ?? length;
  const [drafts, setDrafts] = useState<Record<string, Draft>>(() =>
    Object.fromEntries(Object.entries(initial).map(([name, text]) => [name, { text, sign: now(name) }])),
  );
  const texts = Object.fromEntries(
    Object.entries(drafts).map(([name, draft]) => [name, carried(draft, now(name))]),
  );
  return [texts, (name, text) => setDrafts((was) => ({ ...was, [name]: { text, sign: now(name) } }))];
}

/** Text being typed, which keeps its meaning when the unit is switched; `sign` is the unit it is in now, a length's if not given. */
// eslint-disable-next-line react-refresh/only-export-components -- a hook belongs beside its provider
export function useDraft(
  initial = '',
  sign?: string,
): [string, (text: string | ((now: string) => string)) => void] {
  const { unit: length } = useUnit();
  const now = sign ?? length;
  const [draft, setDraft] = useState<Draft>({ text: initial, sign: now });
  const set = useCallback(
    (text: string | ((was: string) => string)) =>
      setDraft((was) => {
        if (typeof text === 'string') return { text, sign: now };
        // What is left as it was keeps the unit it was typed in.
        const next = text(was.text);
        return next === was.text ? was : { text: next, sign: now };
      }),
    [now],
  );
  return [carried(draft, now), set];
}
