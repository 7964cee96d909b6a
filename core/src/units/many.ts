/** `1 load`, `2 loads`; a plural of its own where -s does not do. */
export const many = (count: number, one: string, more = `${one}s`): string =>
  `${count} ${count === 1 ? one : more}`;
