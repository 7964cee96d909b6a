import { eq, lt } from 'drizzle-orm';
import type { Db } from '../db/open.js';
import { answers } from '../db/tables.js';
import type { Answer } from '../http/answer.js';

const KEEP_MS = 90 * 86_400_000;

/** Answers kept for retries. */
export class AnswerStore {
  constructor(private readonly db: Db) {}

  find(key: string): { request: string; answer: Answer } | undefined {
    const row = this.db.select().from(answers).where(eq(answers.key, key)).get();
    return row && { request: row.request, answer: row.answer as Answer };
  }

  keep(key: string, request: string, answer: Answer): void {
    this.db.insert(answers).values({ key, request, answer, at: Date.now() }).run();
  }

  /** Forgets answers older than three months. */
  forgetOld(): void {
    this.db
      .delete(answers)
      .where(lt(answers.at, Date.now() - KEEP_MS))
      .run();
  }
}
