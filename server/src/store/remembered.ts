/**
 * Something read from the data file and kept until it is forgotten: it is asked for with every request, and seldom
 * changes. What is given out is shared, and not to be changed.
 */
export class Remembered<T> {
  #known: { value: T } | undefined;

  constructor(private readonly read: () => T) {}

  get(): T {
    this.#known ??= { value: this.read() };
    return this.#known.value;
  }

  /** What is known from now on, where it was changed along with the file. */
  set(value: T): void {
    this.#known = { value };
  }

  forget(): void {
    this.#known = undefined;
  }
}
