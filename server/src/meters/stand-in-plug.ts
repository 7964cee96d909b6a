import { programme, wattsIn, type Phase } from '@needlecase/core/loads/stand-in/programmes';
import type { StandInDraft } from '@needlecase/core/model/meters';
import { Aedes } from 'aedes';
import { randomInt } from 'node:crypto';
import { createServer, type AddressInfo, type Server } from 'node:net';

const SECOND = 1000;
/** It speaks so often, ms; of a fast one, what lies between comes at once, a sample each so many seconds of its own. */
const SPEAKS = 250;
const STEP = 5 * SECOND;
/** How long it rests before and after its programme, seconds: a load is over once nothing more comes. */
const RESTS_BEFORE = 60;
const RESTS_AFTER = 25 * 60;
const STANDBY = 1.2;
const NOISE = 0.6;

/** A broker in this process and plugs that speak to it, which stand in for real ones. */
export class StandInPlug {
  readonly #running = new Map<string, NodeJS.Timeout>();

  private constructor(
    readonly aedes: Aedes,
    private readonly server: Server,
  ) {}

  static async open(port = 0): Promise<StandInPlug> {
    const aedes = await Aedes.createBroker();
    const server = createServer(aedes.handle);
    await new Promise<void>((done, failed) => {
      server.once('error', failed);
      server.listen(port, '127.0.0.1', done);
    });
    return new StandInPlug(aedes, server);
  }

  get address(): string {
    return `mqtt://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  /**
   * Runs a programme on a meter's topic: `{ "at": …, "power": … }` each sample. A fast one begins in the past, so that
   * nothing it says is of the future.
   * @param after UTC milliseconds: nothing is said of what came before
   */
  run(topic: string, { programme: kind, speed }: StandInDraft, after = 0): void {
    this.stop(topic);
    const phases = withRest(programme(kind, () => randomInt(1e9) / 1e9));
    const length = SECOND * phases.reduce((sum, { seconds }) => sum + seconds, 0);
    const begun = Date.now();
    const from = Math.max(after + SECOND, begun - length * (1 - 1 / speed));
    let next = from;
    const speak = (): void => {
      const until = Math.min(Date.now(), from + (Date.now() - begun) * speed, from + length);
      for (; next <= until; next += speed === 1 ? SECOND : STEP) {
        this.#say(topic, next, wattsAt(phases, (next - from) / SECOND));
      }
      if (until >= from + length) this.stop(topic);
    };
    this.#running.set(topic, setInterval(speak, SPEAKS));
  }

  isRunning(topic: string): boolean {
    return this.#running.has(topic);
  }

  stop(topic: string): void {
    clearInterval(this.#running.get(topic));
    this.#running.delete(topic);
  }

  #say(topic: string, at: number, watts: number): void {
    const power = Math.max(0, watts + NOISE * (randomInt(2001) / 1000 - 1));
    const payload = JSON.stringify({ at: Math.round(at), power: Number(power.toFixed(1)) });
    const packet = { cmd: 'publish', topic, payload, qos: 1, retain: false, dup: false } as const;
    this.aedes.publish(packet, () => {});
  }

  async close(): Promise<void> {
    for (const topic of this.#running.keys()) this.stop(topic);
    await new Promise<void>((done) => this.aedes.close(done));
    await new Promise((done) => this.server.close(done));
  }
}

const rest = (seconds: number): Phase => ({ does: 'rest', seconds, watts: STANDBY });
const withRest = (phases: readonly Phase[]): Phase[] => [
  rest(RESTS_BEFORE),
  ...phases,
  rest(RESTS_AFTER),
];

function wattsAt(phases: readonly Phase[], seconds: number): number {
  let into = seconds;
  for (const phase of phases) {
    if (into < phase.seconds) return wattsIn(phase, into);
    into -= phase.seconds;
  }
  return STANDBY;
}
