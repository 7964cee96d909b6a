import { eq } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { CodeSheet, CodeSheetDraft } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { codeSheets } from '../db/tables.js';

/** Sheets of display codes. */
export class CodeSheetStore {
  constructor(private readonly db: Db) {}

  list(): CodeSheet[] {
    return this.db
      .select()
      .from(codeSheets)
      .all()
      .map(toSheet)
      .sort((a, b) => `${a.maker} ${a.family}`.localeCompare(`${b.maker} ${b.family}`));
  }

  get(id: string): CodeSheet | undefined {
    const row = this.db.select().from(codeSheets).where(eq(codeSheets.id, id)).get();
    return row && toSheet(row);
  }

  create(sheet: CodeSheetDraft): CodeSheet {
    const id = randomUUID();
    this.db.insert(codeSheets).values({ id, version: 1, sheet }).run();
    return this.get(id)!;
  }

  replace(id: string, version: number, sheet: CodeSheetDraft): CodeSheet {
    this.db
      .update(codeSheets)
      .set({ sheet, version: version + 1 })
      .where(eq(codeSheets.id, id))
      .run();
    return this.get(id)!;
  }

  remove(id: string): void {
    this.db.delete(codeSheets).where(eq(codeSheets.id, id)).run();
  }
}

export const toSheet = ({ id, version, sheet }: typeof codeSheets.$inferSelect): CodeSheet => ({
  id,
  version,
  ...sheet,
});
