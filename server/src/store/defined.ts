/** What may be missing in a row, as optional fields. */
type Missing = null | undefined;
type Defined<T> = {
  [K in keyof T as Extract<T[K], Missing> extends never ? K : never]: T[K];
} & {
  [K in keyof T as Extract<T[K], Missing> extends never ? never : K]?: NonNullable<T[K]>;
};

/** A row without the fields that are not there. */
export function defined<T extends object>(row: T): Defined<T> {
  return Object.fromEntries(
    Object.entries(row).filter(([, field]) => field !== null && field !== undefined),
  ) as Defined<T>;
}
