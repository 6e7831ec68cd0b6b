import type { components } from './schema';

type Schemas = components['schemas'];
type Job = Schemas['JobResponse'];
type Answer = Schemas['JobAnswer'];
type Section = Schemas['Section'];
type Named = [name: string, section: Section];

interface Held {
  sections: ReadonlyMap<string, Section>;
  /** Entries of lists as they were put together, by the name of their section. */
  entries: ReadonlyMap<string, unknown>;
}

const held = new WeakMap<Job, Held>();
const NOTHING: Held = { sections: new Map(), entries: new Map() };
const of = (job: Job | undefined): Held => (job && held.get(job)) ?? NOTHING;

/** So many tags are half of what a server takes as one header: a long log must not make a job unreadable. */
const MOST_TAGS = 450;

/** Says with a request what is held of a job, so that the answer is the rest. What is not said is sent again. */
export const heldBy = (job: Job | undefined): { Held: string } => ({
  Held: [...of(job).sections.values()]
    .slice(0, MOST_TAGS)
    .map(({ tag }) => tag)
    .join(','),
});

/** A job of what was held when it was asked for, and what was answered. What did not change stays the same object. */
export function joined(before: Job | undefined, answer: Answer): Job {
  if (!('sections' in answer)) return answer;
  const old = of(before);
  const named = [...new Map([...old.sections, ...Object.entries(answer.sections)])];
  const changed = new Set(Object.keys(answer.sections).map(entryName));
  const below = new Map<string, Named[]>();
  for (const one of named) below.set(entryName(one[0]), [...(below.get(entryName(one[0])) ?? []), one]);
  const whole: Record<string, unknown> = {};
  const entries = new Map<string, unknown>();
  const kept: Named[] = [];
  for (const [name, section] of named) {
    const [first = '', list] = name.split('/');
    if (list !== undefined && first !== 'lists') continue;
    kept.push([name, section]);
    if (name === 'self') Object.assign(whole, section.value);
    else if (list === undefined) whole[first] = section.value;
    else {
      whole[list] = (section.value as string[]).map((key) => {
        const entry = `${list}/${key}`;
        const parts = below.get(entry) ?? [];
        kept.push(...parts);
        const made = (!changed.has(entry) && old.entries.get(entry)) || entryOf(entry, parts);
        entries.set(entry, made);
        return made;
      });
    }
  }
  const job = whole as unknown as Job;
  held.set(job, { sections: new Map(kept), entries });
  return job;
}

/** The entry a section is of: `features/idler_bore` of `features/idler_bore/readings`. */
const entryName = (name: string) => name.split('/', 2).join('/');

/** An entry of a list, with the fields of it that are sections of their own. */
function entryOf(name: string, parts: Named[]): unknown {
  const fields = parts.map(([one, { value }]) =>
    one === name ? (value as object) : { [one.slice(name.length + 1)]: value },
  );
  return Object.assign({}, ...fields) as unknown;
}
