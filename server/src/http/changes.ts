import type { Request, Response } from 'express';
import { randomUUID } from 'node:crypto';
import { ProblemError } from './problem.js';

export const TOPICS = [
  'household',
  'machines',
  'entries',
  'runs',
  'supplies',
  'cases',
  'code-sheets',
  'vent-runs',
  'documents',
  'backups',
  'plan',
  'meters',
  'health',
] as const;

/** What other open screens should look at again. */
export interface Change {
  topic: (typeof TOPICS)[number];
  id?: string;
}

/** Why nothing is stored for now, and what is to be done. */
export interface Stop {
  title: string;
  detail: string;
}

/** Tabs of a browser share one; where they cannot, each page has its own. */
const MOST_STREAMS = 40;
export const EVENT_STREAM = 'text/event-stream';
const KEEP_ALIVE_MS = 25_000;
/** Who does not take in what was told is let go: it asks again, and reads everything anew. Bytes. */
const MOST_WAITING = 64_000;

/** Tells every open screen what changed, by server-sent events. */
export class Changes {
  readonly #listeners = new Map<Response, { whose: string; forget: () => void }>();
  /** Names the built application that is served: a page of another one can tell. */
  release: string | undefined;
  #stop: Stop | undefined;
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
    this.#say(`data: ${JSON.stringify(change)}\n\n`);
  }

  #say(text: string): void {
    for (const [listener, { forget }] of this.#listeners) {
      listener.write(text);
      if (listener.writableLength <= MOST_WAITING) continue;
      forget();
      listener.destroy();
    }
  }

  /** Tells every open screen, and each that opens, that nothing is stored; or that it goes on. */
  stops(stop: Stop | undefined): void {
    this.#stop = stop;
    this.#say(stopped(stop));
  }

  /**
   * Answers with the stream.
   * @param whose device it goes to
   */
  stream(request: Request, response: Response, whose: string): void {
    const open = [...this.#listeners.values()].filter((one) => one.whose === whose).length;
    if (open >= MOST_STREAMS) {
      throw new ProblemError(429, 'This device has too many open pages here.', {
        detail: 'Shut some of them.',
      });
    }
    response.set({ 'Content-Type': EVENT_STREAM, 'Cache-Control': 'no-store' });
    response.flushHeaders();
    response.write('retry: 2000\n\n');
    // By it a device's clock is held against this one's before anything is sent.
    response.write(`event: clock\ndata: ${Date.now()}\n\n`);
    response.write(`event: revision\ndata: ${this.revision}\n\n`);
    if (this.release) response.write(`event: release\ndata: ${this.release}\n\n`);
    if (this.#stop) response.write(stopped(this.#stop));
    const beat = setInterval(() => response.write(': here\n\n'), KEEP_ALIVE_MS);
    const forget = (): void => {
      clearInterval(beat);
      this.#listeners.delete(response);
    };
    this.#listeners.set(response, { whose, forget });
    request.on('close', forget);
  }

  /** Ends the streams of a device: it is shut out. */
  end(whose: string): void {
    this.#end((one) => one === whose);
  }

  /** Ends all streams, so that the server can stop. */
  close(): void {
    this.#end(() => true);
  }

  #end(which: (whose: string) => boolean): void {
    for (const [listener, { whose, forget }] of this.#listeners) {
      if (!which(whose)) continue;
      // At once, and not when it is shut: what is written after the end would end the server.
      forget();
      listener.end();
    }
  }
}

const stopped = (stop: Stop | undefined): string =>
  `event: stopped\ndata: ${JSON.stringify(stop ?? {})}\n\n`;
