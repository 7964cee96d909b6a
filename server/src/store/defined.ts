/** What may be missing in a row, as optional fields. */
type Missing = null | undefined;
type Defined<T> = {
  [K in keyof T as Extract<T[K], Missing> extends never ? K : never]: T[K];
} & {
  [K in keyof T as Extract<T[K], Missing> extends never ? never : K]?: NonNullable<T[K]>;
};

/** A row without the fields that are not there. */
export function defined<T extends object>(row: T): Defined<T> {
  const there: Partial<T> = {};
  for (const name of Object.keys(row) as (keyof T)[]) {
    if (row[name] !== null && row[name] !== undefined) there[name] = row[name];
  }
  return there as unknown as Defined<T>;
}
