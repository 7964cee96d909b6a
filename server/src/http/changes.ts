import type { Request, Response } from 'express';
import { randomUUID } from 'node:crypto';

export const TOPICS = [
  'household',
  'machines',
  'entries',
  'runs',
  'supplies',
  'cases',
  'code-sheets',
  'vent-runs',
  'backups',
] as const;

/** What other open screens should look at again. */
export interface Change {
  topic: (typeof TOPICS)[number];
  id?: string;
}

export const EVENT_STREAM = 'text/event-stream';
const KEEP_ALIVE_MS = 25_000;

/** Tells every open screen what changed, by server-sent events. */
export class Changes {
  readonly #listeners = new Set<Response>();
  /** Names the built application that is served: a page of another one can tell. */
  release: string | undefined;
  readonly #start = randomUUID().slice(0, 8);
  #count = 0;

  /**
   * How far this server has come with its changes: another one after each, and after each start. What was read
   * at one revision is the newest while the stream begins with the same.
   */
  get revision(): string {
    return `${this.#start}.${this.#count}`;
  }

  tell(change: Change): void {
    this.#count++;
    for (const listener of this.#listeners) listener.write(`data: ${JSON.stringify(change)}\n\n`);
  }

  /** Express handler for the stream. */
  stream = (request: Request, response: Response): void => {
    response.set({ 'Content-Type': EVENT_STREAM, 'Cache-Control': 'no-store' });
    response.flushHeaders();
    response.write('retry: 2000\n\n');
    // By it a device's clock is held against this one's before anything is sent.
    response.write(`event: clock\ndata: ${Date.now()}\n\n`);
    response.write(`event: revision\ndata: ${this.revision}\n\n`);
    if (this.release) response.write(`event: release\ndata: ${this.release}\n\n`);
    this.#listeners.add(response);
    const beat = setInterval(() => response.write(': here\n\n'), KEEP_ALIVE_MS);
    request.on('close', () => {
      clearInterval(beat);
      this.#listeners.delete(response);
    });
  };

  /** Ends all streams, so that the server can stop. */
  close(): void {
    for (const listener of this.#listeners) listener.end();
  }
}
