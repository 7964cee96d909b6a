import { getTableColumns, type Table } from 'drizzle-orm';

/**
 * A draft as the whole of what its row tells: what the draft does not say is emptied, so that a column added
 * later is not forgotten here.
 */
export function whole<D extends object>(table: Table, draft: D): D {
  const told: Record<string, unknown> = Object.fromEntries(Object.entries(draft));
  for (const [name, column] of Object.entries(getTableColumns(table))) {
    if (!column.notNull && !column.primary && !(name in told)) told[name] = null;
  }
  return told as D;
}
