import { Injectable, signal } from '@angular/core';
import { filter, Observable, share } from 'rxjs';
import { clockAhead, hearAhead } from './clock';
import { leased, openDevice } from './device';
import { hasLocks, lockedInTurn, newChannel, pageId } from './platform';
import { isBehind } from './revision';

export interface Change {
  topic:
    | 'household'
    | 'machines'
    | 'entries'
    | 'runs'
    | 'supplies'
    | 'cases'
    | 'code-sheets'
    | 'vent-runs'
    | 'documents'
    | 'backups'
    | 'meters'
    | 'health'
    /** Something may have been missed: whatever is shown is read anew. */
    | 'gap';
  id?: string;
}

/** Why the server stores nothing for now, and what is to be done. */
export interface Stop {
  title: string;
  detail: string;
}

const NAME = 'needlecase-changes';
/** Past the service worker: a stream is not for keeping. */
const ADDRESS = '/api/v1/changes?ngsw-bypass';
/** Who does not hold the stream asks for it again after so long, where the browser has no locks. */
const ASK_MS = 5000;
const BEAT_MS = 10_000;
/** A beat that comes so late says that the device slept, or the page was put aside. */
const LATE_MS = 100_000;

/** What the tab that holds the stream tells the others, and they ask of it. */
interface News {
  change?: Change;
  connected?: boolean;
  /** Milliseconds that the server's clock is ahead. */
  ahead?: number;
  /** The application that the server has. */
  release?: string;
  /** How far the server had come when the stream began. */
  revision?: string;
  /** Nothing is stored; null where it goes on. */
  stopped?: Stop | null;
  hello?: true;
}

/**
 * What other screens changed, as the server tells it. All tabs of a browser share one stream: it has few
 * connections to a server, and each stream would keep one.
 *
 * ```
 *   server --stream--> the tab that has the lock --channel--> the others
 *                      gone: another takes it over; after any gap everything shown is read anew
 * ```
 * Without locks the tabs agree by a lease in their store; without a channel each has its own while it is seen.
 */
@Injectable({ providedIn: 'root' })
export class ChangesService {
  /** Whether the server tells us of changes: false while it cannot be reached. */
  readonly connected = signal(true);
  /** The server has another application than this page is of. */
  readonly newer = signal(false);

  /** Why the server stores nothing for now. */
  readonly stopped = signal<Stop | undefined>(undefined);

  readonly all$ = new Observable<Change>((listener) => {
    if (typeof EventSource === 'undefined') return undefined;
    const leave = this.#join((change) => listener.next(change));
    return () => {
      leave();
      this.connected.set(true);
      this.stopped.set(undefined);
    };
  }).pipe(share());

  of(...topics: Change['topic'][]): Observable<Change> {
    return this.all$.pipe(filter(({ topic }) => topic === 'gap' || topics.includes(topic)));
  }

  /** @returns what ends it */
  #join(next: (change: Change) => void): () => void {
    const gap = () => next({ topic: 'gap' });
    const stopWatching = watchSleep(gap);
    if (typeof BroadcastChannel === 'undefined') {
      const stop = whileSeen(() => this.#open((news) => this.#hear(news, next)), gap);
      return () => {
        stopWatching();
        stop();
      };
    }
    const channel = newChannel<News>(NAME);
    const ended = new AbortController();
    let leading = false;
    channel.heard = (news) => {
      this.#hear(news, next);
      if (!news.hello || !leading) return;
      channel.tell({
        ...{ connected: this.connected(), stopped: this.stopped() ?? null },
        ...aheadNow(),
      });
    };
    const since = Date.now();
    const lead = (): Promise<void> => {
      leading = true;
      const tell = (news: News) => {
        this.#hear(news, next);
        channel.tell(news);
      };
      const close = this.#open(tell);
      // What the tab before it did not pass on is not known.
      if (Date.now() - since > ASK_MS / 2) tell({ change: { topic: 'gap' } });
      return new Promise((done) => {
        ended.signal.addEventListener('abort', () => {
          close();
          done();
        });
      });
    };
    void inTurn(lead, ended.signal);
    channel.tell({ hello: true });
    return () => {
      stopWatching();
      ended.abort();
      channel.close();
    };
  }

  #hear(
    { change, connected, ahead, release, revision, stopped }: News,
    next: (change: Change) => void,
  ): void {
    if (connected !== undefined) this.connected.set(connected);
    if (ahead !== undefined) hearAhead(ahead);
    if (stopped !== undefined) this.stopped.set(stopped ?? undefined);
    if (release !== undefined) this.newer.set(isOther(release));
    if (revision !== undefined && isBehind(revision)) next({ topic: 'gap' });
    if (change) next(change);
  }

  /** Opens the stream. @returns what closes it */
  #open(tell: (news: News) => void): () => void {
    const source = new EventSource(ADDRESS);
    let broken = false;
    source.onopen = () => {
      // Whatever there is to say against it is said after this.
      tell({ connected: true, stopped: null });
      // Nobody knows what was told meanwhile.
      if (broken) tell({ change: { topic: 'gap' } });
      broken = false;
    };
    source.onerror = () => {
      broken = true;
      tell({ connected: false });
    };
    source.onmessage = ({ data }: MessageEvent<string>) =>
      tell({ change: JSON.parse(data) as Change });
    source.addEventListener('clock', ({ data }: MessageEvent<string>) =>
      tell({ ahead: Number(data) - Date.now() }),
    );
    source.addEventListener('revision', ({ data }: MessageEvent<string>) =>
      tell({ revision: data }),
    );
    source.addEventListener('stopped', ({ data }: MessageEvent<string>) => {
      const stop = JSON.parse(data) as Partial<Stop>;
      tell({ stopped: stop.title === undefined ? null : (stop as Stop) });
    });
    source.addEventListener('release', ({ data }: MessageEvent<string>) => tell({ release: data }));
    return () => source.close();
  }
}

/** Whether this page runs, and is of another application than the one named. */
function isOther(release: string): boolean {
  const scripts = [...document.querySelectorAll<HTMLScriptElement>('script[src*="main-"]')];
  return scripts.length > 0 && !scripts.some(({ src }) => src.endsWith(release));
}

const aheadNow = (): News => {
  const ahead = clockAhead();
  return ahead === undefined ? {} : { ahead };
};

/** Leads when it is this tab's turn, until it is ended. */
async function inTurn(lead: () => Promise<void>, ended: AbortSignal): Promise<void> {
  if (hasLocks()) {
    // Ended while it waits for its turn, the request is refused.
    return lockedInTurn(NAME, ended, lead).catch(() => undefined);
  }
  const me = pageId();
  while (!ended.aborted) {
    try {
      if (await leased(await openDevice(), NAME, me, lead)) return;
    } catch {
      // A browser that keeps nothing: each tab for itself.
      return lead();
    }
    await new Promise((later) => setTimeout(later, ASK_MS));
  }
}

/** Has something open while the page is seen; on return what was missed is told. @returns what ends it */
function whileSeen(open: () => () => void, missed: () => void): () => void {
  let close = document.hidden ? undefined : open();
  const turn = () => {
    if (document.hidden) {
      close?.();
      close = undefined;
    } else if (!close) {
      close = open();
      missed();
    }
  };
  document.addEventListener('visibilitychange', turn);
  return () => {
    document.removeEventListener('visibilitychange', turn);
    close?.();
  };
}

/** Tells when the device has slept, or the page was put aside. @returns what ends it */
function watchSleep(slept: () => void): () => void {
  let last = Date.now();
  const beat = setInterval(() => {
    const now = Date.now();
    if (now - last > LATE_MS) slept();
    last = now;
  }, BEAT_MS);
  const shown = ({ persisted }: PageTransitionEvent) => persisted && slept();
  addEventListener('pageshow', shown);
  return () => {
    clearInterval(beat);
    removeEventListener('pageshow', shown);
  };
}
