/*
 * Loaded into a server before it starts (`node --require`): it makes its world unruly on a sign, and the server knows
 * nothing of it. SIGUSR2 has the clock jump, SIGWINCH has a thread die.
 */
const workers = require('node:worker_threads');
const { syncBuiltinESMExports } = require('node:module');

const DAY = 86_400_000;
const JUMPS = [3 * DAY, -DAY, 400 * DAY, -20 * 60_000, 0];
const real = Date.now.bind(Date);
let jumps = 0;
let offset = 0;

/** A clock that is set anew while the program runs. */
class Jumping extends Date {
  constructor(...given) {
    if (given.length === 0) super(real() + offset);
    else super(...given);
  }
}
Jumping.now = () => real() + offset;
globalThis.Date = Jumping;
process.on('SIGUSR2', () => {
  offset = JUMPS[jumps++ % JUMPS.length];
});

const alive = new Set();
workers.Worker = class extends workers.Worker {
  constructor(...given) {
    super(...given);
    alive.add(this);
    this.on('exit', () => alive.delete(this));
  }
};
syncBuiltinESMExports();
process.on('SIGWINCH', () => {
  for (const worker of alive) {
    void worker.terminate();
    break;
  }
});
