/** The grid goes through iterators in ways tablets of a few years ago do not know yet. */
type Step<R> = (value: unknown, index: number) => R;
interface Helped extends Iterable<unknown> {
  toArray?: () => unknown[];
  map?: <R>(step: Step<R>) => Iterator<R>;
  filter?: (step: Step<boolean>) => Iterator<unknown>;
}
const iterator = Object.getPrototypeOf(Object.getPrototypeOf([][Symbol.iterator]())) as Helped;

iterator.toArray ??= function (this: Helped) {
  return [...this];
};
iterator.map ??= function (this: Helped, step) {
  return [...this].map((value, index) => step(value, index)).values();
};
iterator.filter ??= function (this: Helped, step) {
  return [...this].filter((value, index) => step(value, index)).values();
};
