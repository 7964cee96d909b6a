/*
 * npm run size: a house of a stated size, asked for every view. Prints what each answer takes, cold and warm, and how
 * large it is; what health takes meanwhile; and what many readers, writers and streams feel.
 * `-- MACHINES ENTRIES SECONDS` chooses others.
 */
import { execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { quantile, timed, underLoad } from './load.mjs';
import { build, install, root } from './steps.mjs';

install();
build();
const [machines = '500', entries = '60000', seconds = '30'] = process.argv.slice(2);
const work = mkdtempSync(join(tmpdir(), 'needlecase-size-'));
const file = join(work, 'size.sqlite');
execFileSync('node', ['server/dist/big-house.js', file, machines, entries], { cwd: root });
const held = [];
const server = spawn('node', ['server/dist/main.js'], {
  cwd: root,
  env: { ...process.env, NEEDLECASE_DB: file, PORT: '0', NEEDLECASE_LOG: 'warn' },
  stdio: ['ignore', 'pipe', 'inherit'],
});
const address = await new Promise((found) =>
  server.stdout.on('data', (text) => {
    for (const line of String(text).split('\n')) {
      const match = /http:\/\/\S+/.exec(line);
      if (match) found(match[0]);
      if (line.includes('The loop was held')) held.push(JSON.parse(line));
    }
  }),
);
const api = `${address}api/v1/`;
const ms = (value) => `${Math.round(value)} ms`;

try {
  const [{ id }] = await (await fetch(`${api}machines`)).json();
  const views = [
    ...[
      'household',
      'machines',
      'bench',
      'plan/ahead',
      'plan',
      'plan/problem',
      'supplies',
      'cases',
    ],
    ...['entries?limit=60', 'year', 'schools', 'hindsight', 'runs', 'meters', 'code-sheets'],
    ...['trouble/likely', `machines/${id}/line`, `machines/${id}/charts`, `machines/${id}/life`],
    ...[`machines/${id}/trouble`, 'calendar.ics', 'prints/wall.pdf', 'prints/year.pdf'],
    ...['prints/labels.pdf', `machines/${id}/record.pdf`, 'entries.csv', 'record.json'],
  ];
  // A large house is planned section by section: what is not planned yet is told as it stands.
  const begun = performance.now();
  const sections = (await (await fetch(`${api}plan`)).json()).section?.all ?? [];
  let asking = true;
  const pings = [];
  const pinging = (async () => {
    while (asking) {
      pings.push(await timed(`${api}health`));
      await new Promise((next) => setTimeout(next, 20));
    }
  })();
  console.log(`${machines} machines, ${entries} entries\n`);
  console.log(
    `${'address'.padEnd(52)} ${'cold'.padStart(9)} ${'warm'.padStart(9)} ${'kB'.padStart(8)}  health`,
  );
  for (const view of views) {
    pings.length = 0;
    const times = [];
    let size = 0;
    for (let i = 0; i < 3; i++) {
      const begun = performance.now();
      const answer = await fetch(api + view, { signal: AbortSignal.timeout(180_000) }).catch(
        (e) => e,
      );
      if (answer instanceof Error) {
        times.push(Infinity);
        break;
      }
      size = (await answer.arrayBuffer()).byteLength;
      times.push(performance.now() - begun);
      if (!answer.ok) console.log(`  answers ${answer.status}`);
    }
    const [cold, ...warm] = times;
    const shown = view.replace(id, '{id}');
    console.log(
      `${shown.padEnd(52)} ${ms(cold).padStart(9)} ${ms(quantile(warm, 0.5)).padStart(9)} ${Math.round(
        size / 1000,
      )
        .toString()
        .padStart(8)}  ${ms(Math.max(0, ...pings))}`,
    );
  }
  asking = false;
  await pinging;
  for (const { id } of sections) {
    const asked = `${api}plan?${new URLSearchParams({ section: id })}`;
    while ((await (await fetch(asked)).json()).making) await new Promise((r) => setTimeout(r, 500));
  }
  console.log(
    `\nAll of it was planned ${Math.round((performance.now() - begun) / 1000)} s after the first was asked.`,
  );
  for (const view of ['plan', 'plan/ahead', 'calendar.ics', 'prints/wall.pdf', 'prints/year.pdf']) {
    const times = [];
    let size = 0;
    for (let i = 0; i < 3; i++) {
      const asked = performance.now();
      size = (await (await fetch(api + view)).arrayBuffer()).byteLength;
      times.push(performance.now() - asked);
    }
    console.log(
      `${view.padEnd(52)} ${times.map((one) => ms(one).padStart(9)).join('')} ${Math.round(size / 1000)} kB`,
    );
  }
  for (const prints of [false, true]) {
    const { errors, ...load } = await underLoad(address, Number(seconds), { streams: 20, prints });
    console.log(
      `\n50 readers, 5 writers, 20 streams${prints ? ', sheets printed' : ''}, ${seconds} s: ${errors} errors`,
    );
    for (const [name, times] of Object.entries(load)) {
      if (times.length === 0) continue;
      console.log(
        `${name.padEnd(12)} ${String(times.length).padStart(6)} times, median ${ms(quantile(times, 0.5))}, p99 ${ms(quantile(times, 0.99))}, most ${ms(Math.max(...times))}`,
      );
    }
  }
  const sum = new Map();
  for (const { ms: lasted, by } of held) {
    const what = by[0]?.replace(/ \d+ ms$/, '') ?? 'nobody said';
    const { times = 0, most = 0 } = sum.get(what) ?? {};
    sum.set(what, { times: times + 1, most: Math.max(most, lasted) });
  }
  console.log(`\nThe loop was held over 50 ms ${held.length} times:`);
  for (const [what, { times, most }] of [...sum].sort((a, b) => b[1].most - a[1].most)) {
    console.log(`  ${what}: ${times} times, ${most} ms at most`);
  }
} finally {
  server.kill('SIGKILL');
  rmSync(work, { recursive: true, force: true });
}
