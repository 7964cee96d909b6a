import { statfs, stat } from 'node:fs/promises';
import { dirname } from 'node:path';
import { sayDay, dayOf } from '@needlecase/core';
import type { Brokers } from '../meters/brokers.js';
import type { LiveMeters } from '../meters/live-meters.js';
import type { Store } from '../store/store.js';
import type { Look, Told } from './house-watch.js';

/* What each look of the house's watch goes by. */

const MINUTE_MS = 60_000;
const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

/** So much room is needed beside the data file for a backup, a migration and a day's work. Bytes. */
const LEAST_ROOM = 200_000_000;
/** A disk that was full is told of so long after the last time, ms. */
const FULL_TOLD_MS = 10 * MINUTE_MS;

/** Whether there is room on the disk of the data file; what was refused for want of it is told at once. */
export function diskLook(file: string): { look: Look; full: (now: number) => void } {
  let fullAt = -Infinity;
  return {
    full: (now) => (fullAt = now),
    look: async (now) => {
      const { bavail, bsize } = await statfs(dirname(file));
      const free = bavail * bsize;
      const { size } = await stat(file);
      if (now - fullAt < FULL_TOLD_MS) {
        return {
          title: 'The disk of the server is full.',
          detail:
            'Nothing can be stored. Everything up to now can be read. Free some space on the computer that runs Needlecase.',
        };
      }
      if (free >= Math.max(LEAST_ROOM, 2 * size)) return undefined;
      return {
        title: `The disk of the server is almost full: about ${Math.round(free / 1e7) * 10} MB are left.`,
        detail:
          'A backup needs about as much space as the data file. Free some space on the computer that runs Needlecase.',
      };
    },
  };
}

/** A clock that goes back by more than this, or on by more than that, did not do so by itself. ms */
const BACK_MS = 2 * MINUTE_MS;
const ON_MS = DAY_MS;
/** A jump is told of for so long, ms. */
const JUMP_TOLD_MS = DAY_MS;

/**
 * Holds the clock of the day against one that only counts on: it was set, or the computer slept for long.
 * @param counted milliseconds that only grow
 * @param newest when the newest entry came in, UTC milliseconds
 */
export function clockLook(counted: () => number, newest: () => number | undefined): Look {
  let last: { now: number; counted: number } | undefined;
  let jump: { at: number; told: Told } | undefined;
  return (now) => {
    const before = last;
    last = { now, counted: counted() };
    if (before) {
      const by = now - before.now - (last.counted - before.counted);
      if (by < -BACK_MS || by > ON_MS) {
        jump = {
          at: last.counted,
          told: {
            title: `The clock of the server went ${by < 0 ? 'back' : 'forward'} by ${span(Math.abs(by))}.`,
            detail:
              'What was recorded before and after may be out of order. Check the date and time of the computer that runs Needlecase. If it was only asleep, nothing is wrong.',
          },
        };
      }
    }
    if (jump && last.counted - jump.at < JUMP_TOLD_MS) return jump.told;
    const written = newest();
    if (written === undefined || written <= now + BACK_MS) return undefined;
    return {
      title: 'The clock of the server is behind what was recorded.',
      detail: `The newest entry came in on ${sayDay(dayOf(written, 'UTC'))}. Check the date and time of the computer that runs Needlecase.`,
    };
  };
}

function span(ms: number): string {
  if (ms < 2 * HOUR_MS) return `${Math.round(ms / MINUTE_MS)} minutes`;
  return ms < 2 * DAY_MS ? `${Math.round(ms / HOUR_MS)} hours` : `${Math.round(ms / DAY_MS)} days`;
}

/** A certificate that ends sooner than this is told of, ms. */
const ENDS_SOON_MS = 14 * DAY_MS;

/** How long the certificate of https holds. @param until UTC milliseconds; nothing where https is not spoken here */
export const certificateLook =
  (until: () => number | undefined): Look =>
  (now) => {
    const end = until();
    if (end === undefined || end - now > ENDS_SOON_MS) return undefined;
    const day = sayDay(dayOf(end, 'UTC'));
    return {
      title: end < now ? `The certificate ended on ${day}.` : `The certificate ends on ${day}.`,
      detail:
        'After that, phones no longer open the safe address. Renew it, or restart the server so that it makes a new one.',
    };
  };

/** A meter that says nothing for so long is told of, ms. */
const SILENT_MS = DAY_MS;

/** Meters whose broker has been away, or has said nothing, for a day. */
export const brokerLook =
  (store: Store, live: LiveMeters, brokers: Brokers): Look =>
  (now) => {
    const silent = store.meters.list().filter(({ id, mqtt }) => {
      if (!mqtt) return false;
      const state = brokers.stateOf(id);
      const away = state !== undefined && state.state !== 'listens';
      const since = away ? Date.parse(state.since) : (live.heard(id) ?? Infinity);
      return now - since > SILENT_MS;
    });
    const [first] = silent;
    if (!first) return undefined;
    const names = silent.map(({ name }) => `“${name}”`).join(', ');
    return {
      title: `${names} ${silent.length === 1 ? 'has' : 'have'} said nothing for a day.`,
      detail: 'Loads are not counted by it now. Check the plug and the broker it speaks through.',
    };
  };

/** A thread that failed is told of for so long, or until it has done the same work again, ms. */
const THREAD_TOLD_MS = 6 * HOUR_MS;

/** Work in threads that came to a stop. */
export function threadLook(): {
  look: Look;
  failed: (job: string) => void;
  did: (job: string) => void;
} {
  const stopped = new Map<string, number>();
  return {
    failed: (job) => void stopped.set(job, Date.now()),
    did: (job) => void stopped.delete(job),
    look: (now) => {
      for (const [job, at] of stopped) if (now - at > THREAD_TOLD_MS) stopped.delete(job);
      if (stopped.size === 0) return undefined;
      return {
        title: 'Some work in the background failed.',
        detail: `The log of the server says more (${[...stopped.keys()].join(', ')}). Try again; if it fails again, restart the server.`,
      };
    },
  };
}
