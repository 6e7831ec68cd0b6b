import { useState } from 'react';
import { useController, useForm } from 'react-hook-form';
import { carried, useUnit, type Draft } from './unit';

/** Texts by name, each with the unit a bare number was in when it was typed. */
type Drafts = Record<string, Draft>;

/** The unit a field's bare number is in now; empty where it has none. A length's if it does not say. */
type SignOf = (name: string) => string | undefined;

const draftsOf = (texts: Record<string, string>, now: (name: string) => string): Drafts =>
  Object.fromEntries(Object.entries(texts).map(([name, text]) => [name, { text, sign: now(name) }]));

/**
 * A form of typed fields. What is typed keeps its meaning when the unit is switched; a key pressed renders its field alone.
 * `initial` is what it begins as, the same object as long as that does not change; what was not touched follows it.
 */
export function useDraftForm(initial: Record<string, string>, signOf: SignOf) {
  const { unit: length } = useUnit();
  const now = (name: string) => signOf(name) ?? length;
  const [begun, setBegun] = useState(() => ({ of: initial, values: draftsOf(initial, now) }));
  if (begun.of !== initial) setBegun({ of: initial, values: draftsOf(initial, now) });
  const form = useForm<Drafts>({ values: begun.values, resetOptions: { keepDirtyValues: true } });
  // Read while rendering, so that it is kept which fields were touched.
  void form.formState.dirtyFields;
  const text = (draft: Draft | undefined, name: string) => (draft ? carried(draft, now(name)) : '');
  const texts = (): Record<string, string> => {
    const typed = form.getValues();
    return Object.fromEntries(Object.keys(typed).map((name) => [name, text(typed[name], name)]));
  };
  return {
    control: form.control,
    now,
    /** All fields as they stand now. */
    texts,
    /** Those that are not what they began as. */
    changed: () =>
      Object.fromEntries(
        Object.entries(texts()).filter(([name, typed]) => typed !== text(begun.values[name], name)),
      ),
  };
}

export type DraftForm = ReturnType<typeof useDraftForm>;

/** One field of such a form: its text as it stands now, and what puts another there. */
export function useDraftField(form: DraftForm, name: string): [string, (text: string) => void] {
  const { field } = useController({ control: form.control, name });
  const sign = form.now(name);
  const draft = (field.value as Draft | undefined) ?? { text: '', sign };
  return [carried(draft, sign), (text) => field.onChange({ text, sign })];
}
