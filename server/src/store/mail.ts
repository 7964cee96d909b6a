import { asc, eq } from 'drizzle-orm';
import { randomBytes, randomUUID } from 'node:crypto';
import type {
  MailRecipient,
  MailRecipientDraft,
  MailServerDraft,
} from '@needlecase/core/model/mail';
import type { Db } from '../db/open.js';
import { facts, mailRecipients } from '../db/tables.js';
import { defined } from './defined.js';

const SERVER = 'mail-server';
const KEY = 'mail-key';

export type RecipientRow = typeof mailRecipients.$inferSelect;

/** Who gets letters, and through which mail server. What lets this computer in there is in no backup. */
export class MailStore {
  constructor(private readonly db: Db) {}

  get server(): MailServerDraft | undefined {
    const kept = this.#fact(SERVER);
    return kept === undefined ? undefined : (JSON.parse(kept) as MailServerDraft);
  }

  set server(server: MailServerDraft | undefined) {
    this.db.delete(facts).where(eq(facts.name, SERVER)).run();
    if (server)
      this.db
        .insert(facts)
        .values({ name: SERVER, value: JSON.stringify(server) })
        .run();
  }

  /** What the links in letters are signed with; made when it is first asked for. */
  key(): Buffer {
    const kept = this.#fact(KEY);
    if (kept !== undefined) return Buffer.from(kept, 'base64url');
    const made = randomBytes(32);
    this.db
      .insert(facts)
      .values({ name: KEY, value: made.toString('base64url') })
      .run();
    return made;
  }

  list(): RecipientRow[] {
    return this.db.select().from(mailRecipients).orderBy(asc(mailRecipients.address)).all();
  }

  get(id: string): RecipientRow | undefined {
    return this.db.select().from(mailRecipients).where(eq(mailRecipients.id, id)).get();
  }

  add(draft: MailRecipientDraft, personId: string | undefined): RecipientRow {
    const id = randomUUID();
    const row = { id, ...draft, personId: personId ?? null, tries: 0 };
    this.db.insert(mailRecipients).values(row).run();
    return this.get(id)!;
  }

  note(id: string, change: Partial<Omit<RecipientRow, 'id'>>): void {
    this.db.update(mailRecipients).set(change).where(eq(mailRecipients.id, id)).run();
  }

  remove(id: string): void {
    this.db.delete(mailRecipients).where(eq(mailRecipients.id, id)).run();
  }

  #fact(name: string): string | undefined {
    return this.db.select().from(facts).where(eq(facts.name, name)).get()?.value;
  }
}

export const toRecipient = ({
  id,
  address,
  weekday,
  sentOn,
  problem,
  nextTryAt,
}: RecipientRow): MailRecipient =>
  defined({
    ...{ id, address, weekday, sentOn, problem },
    triedAgainAt: nextTryAt === null ? null : new Date(nextTryAt).toISOString(),
  });
