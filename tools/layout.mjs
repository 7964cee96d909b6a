/*
 * npm run layout: draws the rooms of core from their real imports into docs/layout.md. With --check it says
 * instead whether every arrow runs the right way (.dependency-cruiser.cjs) and the drawing is still right.
 */
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { bin, root } from './steps.mjs';

const { FLOORS, roomPath } = createRequire(import.meta.url)('./floors.cjs');
const [BEGIN, END] = ['<!-- rooms: made by npm run layout -->', '<!-- /rooms -->'];
const page = join(root, 'docs/layout.md');

const checking = process.argv.includes('--check');
const { modules, summary } = cruised(
  checking ? ['core/src', 'server/src', 'web/src', 'demo'] : ['core/src'],
);
if (summary.violations.length) {
  for (const { rule, from, to, cycle = [] } of summary.violations) {
    console.error(`${rule.name}: ${from} → ${cycle.map(({ name }) => name).join(' → ') || to}`);
  }
  process.exit(1);
}
const rooms = FLOORS.map(({ room, holds }) => ({ room, holds, is: new RegExp(roomPath(room)) }));
const roomOf = (path) => rooms.find(({ is }) => is.test(path))?.room;

/** Rooms that each room stands on. */
const standsOn = new Map(rooms.map(({ room }) => [room, new Set()]));
const files = new Map(rooms.map(({ room }) => [room, 0]));
for (const { source, dependencies } of modules) {
  const room = roomOf(source);
  if (!room || /\.spec\.ts$|\.generated\.|\/testing\.ts$/.test(source)) continue;
  files.set(room, files.get(room) + 1);
  for (const { resolved } of dependencies) {
    const other = roomOf(resolved);
    if (other && other !== room) standsOn.get(room).add(other);
  }
}

/** Whether a room is reached from another by way of a third. */
const reached = (from, to) =>
  [...standsOn.get(from)].some((next) => next === to || reached(next, to));
const arrows = [...standsOn].flatMap(([room, others]) =>
  [...others]
    .filter((other) => ![...others].some((by) => by !== other && reached(by, other)))
    .map((other) => [room, other]),
);

const id = (room) => room.replaceAll('/', '_');
const drawing = [
  BEGIN,
  '',
  '```mermaid',
  'flowchart BT',
  ...rooms.map(({ room }) => `  ${id(room)}["${room}<br/>${files.get(room)} files"]`),
  ...arrows.map(([room, other]) => `  ${id(room)} --> ${id(other)}`),
  '```',
  '',
  'An arrow points at what a room stands on; what follows from other arrows is left out.',
  '',
  '| room | holds | stands on |',
  '|---|---|---|',
  ...rooms.map(
    ({ room, holds }) =>
      `| \`${room}\` | ${holds} | ${
        [...standsOn.get(room)]
          .sort((a, b) => order(a) - order(b))
          .map((other) => `\`${other}\``)
          .join(', ') || 'nothing'
      } |`,
  ),
  '',
  END,
].join('\n');

/** What dependency-cruiser finds in some folders; it ends with an error where something is wrong. */
function cruised(folders) {
  const { stdout } = spawnSync(
    bin('depcruise'),
    ['--config', '.dependency-cruiser.cjs', '--output-type', 'json', ...folders],
    { cwd: root, encoding: 'utf8', maxBuffer: 1e9 },
  );
  return JSON.parse(stdout);
}

function order(room) {
  return rooms.findIndex((one) => one.room === room);
}

const text = readFileSync(page, 'utf8');
const [before, rest] = text.split(BEGIN);
if (rest === undefined || !rest.includes(END)) {
  console.error(`docs/layout.md has no place for the drawing: ${BEGIN} … ${END}`);
  process.exit(1);
}
const drawn = before + drawing + rest.slice(rest.indexOf(END) + END.length);
if (checking) {
  if (drawn !== text) {
    console.error('The rooms in docs/layout.md are not those of the code: run npm run layout.');
    process.exit(1);
  }
} else {
  writeFileSync(page, drawn);
  console.log(`${rooms.length} rooms, ${arrows.length} arrows.`);
}
