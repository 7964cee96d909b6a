import Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { connect, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Chance } from './testing/chance.js';
import { hostileCalendar } from './testing/hostile-calendar.js';
import { setup } from './testing/household.js';
import { lookedAt } from './testing/second-program.js';
import { send, ServerProcess } from './testing/server-process.js';

/*
 * A server in an unruly world: another program at its file, a clock that jumps, threads that die, calendars that never
 * end, bodies that never come, and the power that goes. Whatever it thanked for is there afterwards, once, and it
 * answers all the while. `npm run chaos` goes on for longer; the same seed is as unruly.
 */
const ACTS = Number(process.env['CHAOS_ACTS'] ?? 40);
const SEED = Number(process.env['SEED'] ?? 0.1626);
const UNRULY = fileURLToPath(new URL('./testing/unruly.cjs', import.meta.url));
/** So long nobody waits for a sign of life, ms. A slow machine that starts threads anew has its share in it. */
const ALIVE_MS = 3000;
/** Whatever is asked is answered by then, ms. */
const ANSWERED_MS = 20_000;

let folder: string;
let file: string;
let server: ServerProcess;
let address: string;
let open: Socket[];
beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needlecase-'));
  file = join(folder, 'house.sqlite');
  server = new ServerProcess(file);
  open = [];
  await start();
});
afterEach(async () => {
  for (const socket of open) socket.destroy();
  await server.end('SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

async function start(): Promise<void> {
  address = await server.start({
    NODE_OPTIONS: `--require ${UNRULY}`,
    NEEDLECASE_LOG: 'silent',
  });
}

/** The status of what is asked; 0 where the power went meanwhile. */
async function asked(path: string, body?: BodyInit, type?: string): Promise<number> {
  const answer = await fetch(`${address}api/v1/${path}`, {
    signal: AbortSignal.timeout(ANSWERED_MS),
    ...(body === undefined ? {} : { method: 'POST', body, headers: { 'Content-Type': type! } }),
  });
  await answer.arrayBuffer();
  return answer.status;
}

/** Somebody who says how much they send, and sends a little of it. */
function neverSent(): void {
  const { hostname, port } = new URL(address);
  const socket = connect(Number(port), hostname);
  socket.on('error', () => undefined);
  socket.write(
    `POST /api/v1/entries HTTP/1.1\r\nHost: ${hostname}:${port}\r\nContent-Type: application/json\r\nContent-Length: 60000\r\n\r\n{"kind":`,
  );
  open.push(socket);
}

describe('an unruly world', () => {
  it(
    `of ${ACTS} acts takes nothing away that was thanked for, and the server answers all the while`,
    async () => {
      const chance = new Chance(SEED);
      const { machines } = (await (await send(address, 'setup', setup)).json()) as {
        machines: { id: string }[];
      };
      const thanked = new Set<string>();
      const odd: string[] = [];
      const write = async () => {
        const ids = Array.from({ length: 5 }, () => randomUUID());
        // Twice, as after an answer that was lost.
        for (const id of [...ids, ids[0]!]) {
          const draft = { id, kind: 'load', machineId: machines[0]!.id };
          const at = new Date(Date.now() - 10 * 86_400_000).toISOString();
          const { status } = await send(address, 'entries', { ...draft, at }, id);
          if (status === 201) thanked.add(id);
          else if (status >= 500 && status !== 503) odd.push(`entries answer ${status}`);
        }
      };
      const foreign = async (path: string, body: string, type: string) => {
        const status = await asked(path, body, type);
        if (status >= 500 && status !== 503) odd.push(`${path} answers ${status}`);
      };
      const acts: Record<string, () => unknown> = {
        'another program looks at the file': () => lookedAt(file),
        'the clock jumps': () => server.signal('SIGUSR2'),
        'a thread dies': () => server.signal('SIGWINCH'),
        'a calendar comes': () => foreign('busy', hostileCalendar(chance), 'text/calendar'),
        'a large body comes': () =>
          foreign(
            'entries',
            `{"note":"${'x'.repeat(300_000 + chance.below(400_000))}"}`,
            'application/json',
          ),
        'a deep body comes': () => foreign('entries', '['.repeat(90_000), 'application/json'),
        'a body never comes': neverSent,
        'a sheet is printed': () => asked('prints/wall.pdf').catch(() => 0),
        'a backup is made': () => asked('backups', '{}', 'application/json').catch(() => 0),
        'the plan is asked for': () => asked('plan').catch(() => 0),
        'the power goes': async () => {
          await server.end('SIGKILL');
          await start();
        },
      };
      const done: string[] = [];
      for (let act = 0; act < ACTS; act++) {
        const name = chance.of(Object.keys(acts));
        done.push(name);
        const going = Promise.resolve(acts[name]!());
        // While the power is gone nobody is answered.
        if (name === 'the power goes') await going;
        const since = performance.now();
        await asked('health');
        const waited = performance.now() - since;
        if (waited > ALIVE_MS) odd.push(`no sign of life for ${Math.round(waited)} ms: ${name}`);
        await write();
        await going;
      }
      expect(odd, done.join(', ')).toEqual([]);
      expect(thanked.size).toBeGreaterThan(2 * ACTS);

      await server.end(chance.is(0.5) ? 'SIGKILL' : 'SIGTERM');
      const db = new Database(file, { readonly: true });
      expect(db.pragma('integrity_check', { simple: true })).toBe('ok');
      const there = db.prepare('SELECT id FROM entries').pluck().all() as string[];
      db.close();
      expect(new Set(there).size).toBe(there.length);
      expect([...thanked].filter((id) => !there.includes(id))).toEqual([]);
      // And it starts again, on what is there.
      await start();
      expect(await asked('ready')).toBe(200);
    },
    60_000 + 3000 * ACTS,
  );
});
