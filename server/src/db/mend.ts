import { keptInstant, mapInstants, readInstant } from '@needlecase/core/model/instants';
import { CaseEvent, VisitProgress } from '@needlecase/core/model/schemas';
import type Database from 'better-sqlite3';
import type { TSchema } from 'typebox';
import { withoutGuards } from './guards.js';

/** An instant that no calendar can read, as near to what was meant as can be told; else when it came in. */
function mended(text: string, cameIn: number): string {
  const tries = [
    text,
    text.replace(' ', 'T'),
    text.replace(/:60(?=[.Zz+-]|$)/, ':59'),
    text.replace(/([+-]\d\d)$/, '$1:00'),
  ];
  const read = tries.find((one) => readInstant(one) !== undefined);
  return read === undefined ? new Date(cameIn).toISOString() : keptInstant(read);
}

interface Stored {
  id: string;
  text: string;
  cameIn: number;
}

/**
 * Mends what an older program took in: instants in events of cases and in the progress of visits that no
 * calendar can read, or that are written otherwise than the program writes them.
 */
export function mendInstants(client: Database.Database): void {
  const mend = (read: string, write: string, schema: TSchema) => {
    const store = client.prepare(write);
    for (const { id, text, cameIn } of client.prepare(read).all() as Stored[]) {
      const value: unknown = JSON.parse(text);
      const now = JSON.stringify(mapInstants(schema, value, (one) => mended(one, cameIn)));
      if (now !== JSON.stringify(value)) store.run(now, id);
    }
  };
  client.transaction(() => {
    withoutGuards(client, ['case_events'], () =>
      mend(
        'SELECT id, event AS text, recorded_at AS cameIn FROM case_events',
        'UPDATE case_events SET event = ? WHERE id = ?',
        CaseEvent,
      ),
    );
    mend(
      'SELECT id, progress AS text, changed_at AS cameIn FROM runs',
      'UPDATE runs SET progress = ? WHERE id = ?',
      VisitProgress,
    );
  })();
}
