import { and, asc, eq, getTableColumns } from 'drizzle-orm';
import type { Document, DocumentDraft, DocumentType } from '@needlecase/core/model/documents';
import type { Db } from '../db/open.js';
import { documents } from '../db/tables.js';

const { file: _file, storedAt: _storedAt, ...TOLD } = getTableColumns(documents);

/** Papers of machines, each file stored once under the id that the client gave it. */
export class DocumentStore {
  constructor(private readonly db: Db) {}

  list(machineId?: string): Document[] {
    return this.db
      .select(TOLD)
      .from(documents)
      .where(machineId === undefined ? undefined : eq(documents.machineId, machineId))
      .orderBy(asc(documents.storedAt), asc(documents.id))
      .all();
  }

  get(id: string): Document | undefined {
    return this.db.select(TOLD).from(documents).where(eq(documents.id, id)).get();
  }

  file(id: string): Buffer | undefined {
    return this.db
      .select({ file: documents.file })
      .from(documents)
      .where(eq(documents.id, id))
      .get()?.file;
  }

  keep(id: string, draft: DocumentDraft, type: DocumentType, file: Buffer): Document {
    const told = { id, version: 1, ...draft, type, bytes: file.length };
    this.db
      .insert(documents)
      .values({ ...told, file, storedAt: Date.now() })
      .run();
    return told;
  }

  replace(id: string, version: number, draft: DocumentDraft): Document {
    this.db
      .update(documents)
      .set({ ...draft, version: version + 1 })
      .where(and(eq(documents.id, id), eq(documents.version, version)))
      .run();
    return this.get(id)!;
  }

  remove(id: string): void {
    this.db.delete(documents).where(eq(documents.id, id)).run();
  }
}
