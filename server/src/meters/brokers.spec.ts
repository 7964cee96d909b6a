import type { Sample } from '@needlecase/core/loads/live/samples';
import { Aedes } from 'aedes';
import { randomUUID } from 'node:crypto';
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { KeptMeter } from '../store/meters.js';
import { Brokers } from './brokers.js';
import { readMessage } from './message.js';

/* A real broker, in this process; it goes away and comes back. */

class Broker {
  readonly #sockets = new Set<Socket>();
  private constructor(
    readonly aedes: Aedes,
    readonly server: Server,
  ) {}

  static async open(port = 0): Promise<Broker> {
    const aedes = await Aedes.createBroker();
    const broker = new Broker(aedes, createServer());
    broker.server.on('connection', (socket) => {
      broker.#sockets.add(socket);
      aedes.handle(socket);
    });
    await new Promise<void>((done) => broker.server.listen(port, '127.0.0.1', done));
    return broker;
  }

  get port(): number {
    return (this.server.address() as AddressInfo).port;
  }

  say(
    topic: string,
    payload: unknown,
    more: { retain?: boolean; qos?: 0 | 1 } = {},
  ): Promise<void> {
    const text = typeof payload === 'string' ? payload : JSON.stringify(payload);
    const { retain = false, qos = 1 } = more;
    return new Promise((done) =>
      this.aedes.publish({ cmd: 'publish', dup: false, topic, payload: text, qos, retain }, () =>
        done(),
      ),
    );
  }

  /** The wire is cut: the session stays with the broker. */
  cut(): void {
    for (const socket of this.#sockets) socket.destroy();
  }

  /** Nobody can call until it listens again. */
  async shut(): Promise<void> {
    const shut = new Promise((done) => this.server.close(done));
    this.cut();
    await shut;
  }
  async listen(port: number): Promise<void> {
    await new Promise<void>((done) => this.server.listen(port, '127.0.0.1', done));
  }

  async close(): Promise<void> {
    if (this.server.listening) await this.shut();
    await new Promise<void>((done) => this.aedes.close(done));
  }
}

const open: { close(): void | Promise<void> }[] = [];
afterEach(async () => {
  for (const one of open.splice(0).reverse()) await one.close();
});

/** Comes true in time, also on a computer that has much else to do. */
const soon = (holds: () => unknown) => vi.waitFor(holds, { timeout: 20_000 });

const DATED = { topic: 'house/plug', figure: '/power', instant: '/at', unit: 'W' } as const;
async function listening(
  mqtt: Omit<NonNullable<KeptMeter['mqtt']>, 'broker'> = DATED,
  take: (samples: readonly Sample[]) => void = () => {},
) {
  const broker = await Broker.open();
  open.push(broker);
  const heard: Sample[] = [];
  const brokers = new Brokers({
    again: 50,
    changed: () => {},
    take: (_, samples) => {
      take(samples);
      heard.push(...samples);
    },
  });
  open.push(brokers);
  const meter: KeptMeter = {
    ...{ id: randomUUID(), version: 1, name: 'Plug', machineId: randomUUID() },
    mqtt: { broker: `mqtt://127.0.0.1:${broker.port}`, ...mqtt },
  };
  await brokers.sync([meter]);
  const until = (state: string) => soon(() => expect(brokers.stateOf(meter.id)?.state).toBe(state));
  await until('listens');
  /** Each once: a broker sends again what it was not thanked for in time, and who keeps it knows it by its instant. */
  const instants = () => [...new Set(heard.map(({ at }) => at))];
  return { broker, brokers, meter, heard, instants, until };
}

const T = Date.now() - 3_600_000;
const said = (at: number, power = 5) => ({ at: T + at, power });

describe('a meter behind a broker', () => {
  it('is heard, and no other topic is', async () => {
    const { broker, heard } = await listening();
    await broker.say('house/other', said(1));
    await broker.say('house/plug/more', said(2));
    await broker.say('house/plug', said(3, 2040));
    await soon(() => expect(heard).toEqual([{ at: T + 3, watts: 2040 }]));
  });

  it('is heard out of order and twice; who keeps it sees to that', async () => {
    const { broker, heard } = await listening();
    for (const at of [3, 1, 2, 2]) await broker.say('house/plug', said(at));
    await soon(() => expect(heard.map(({ at }) => at)).toEqual([3, 1, 2, 2].map((at) => T + at)));
  });

  it('whose broker is away comes back by itself, with what was said in between', async () => {
    const { broker, instants, until } = await listening();
    await broker.say('house/plug', said(1));
    const { port } = broker;
    await broker.shut();
    await until('away');
    // An hour by its own clock.
    for (let at = 2; at < 62; at++) await broker.say('house/plug', said(60_000 * at));
    await broker.listen(port);
    await until('listens');
    await soon(() => expect(instants()).toHaveLength(61));
  });

  it('is called again after each cut', async () => {
    const { broker, instants, until } = await listening();
    for (let i = 0; i < 3; i++) {
      broker.cut();
      await until('away');
      await until('listens');
      await broker.say('house/plug', said(i));
    }
    await soon(() => expect(instants()).toEqual([0, 1, 2].map((at) => T + at)));
  });

  it('whose broker forgot all at its own restart is heard again', async () => {
    const { broker, instants, until } = await listening();
    const { port } = broker;
    await broker.close();
    await until('away');
    const again = await Broker.open(port);
    open.push(again);
    await until('listens');
    await again.say('house/plug', said(9));
    await soon(() => expect(instants()).toEqual([T + 9]));
  });

  it('is not told by what a broker kept, where that has no instant of its own', async () => {
    const broker = await Broker.open();
    open.push(broker);
    await broker.say('plain', '2100', { retain: true });
    await broker.say('dated', said(7, 2100), { retain: true });
    const heard: [string, Sample][] = [];
    const brokers = new Brokers({
      again: 50,
      changed: () => {},
      take: ({ name }, [sample]) => heard.push([name, sample!]),
    });
    open.push(brokers);
    const base = { broker: `mqtt://127.0.0.1:${broker.port}`, unit: 'W' as const };
    const machineId = randomUUID();
    await brokers.sync([
      { id: randomUUID(), version: 1, name: 'plain', machineId, mqtt: { ...base, topic: 'plain' } },
      {
        ...{ id: randomUUID(), version: 1, name: 'dated', machineId },
        mqtt: { ...base, ...DATED, topic: 'dated' },
      },
    ]);
    await soon(() => expect(heard.map(([name]) => name)).toEqual(['dated']));
    await broker.say('plain', '12.5', { qos: 0 });
    await soon(() => expect(heard.at(-1)).toMatchObject(['plain', { watts: 12.5 }]));
  });

  it('is thanked only once what it said is kept', async () => {
    let [full, tries] = [true, 0];
    const { broker, instants } = await listening(DATED, () => {
      tries++;
      if (full) throw new Error('the disk is full');
    });
    await broker.say('house/plug', said(1));
    await soon(() => expect(tries).toBeGreaterThan(2));
    expect(instants()).toEqual([]);
    full = false;
    await soon(() => expect(instants()).toEqual([T + 1]));
  });

  it('says in words what is wrong, and that it is right again', async () => {
    const { broker, brokers, meter } = await listening();
    const says = (words: string | undefined) =>
      soon(() => {
        const now = brokers.stateOf(meter.id)?.says;
        if (words === undefined) expect(now).toBeUndefined();
        else expect(now).toContain(words);
      });
    await broker.say('house/plug', 'open sesame');
    await says('no JSON: open sesame');
    await broker.say('house/plug', { at: T, watt: 5 });
    await says('nothing at /power');
    await broker.say('house/plug', said(1));
    await says(undefined);
  });

  it('is let go, and called where it moved to', async () => {
    const { broker, brokers, meter, instants } = await listening();
    const other = await Broker.open();
    open.push(other);
    await brokers.sync([
      { ...meter, mqtt: { ...meter.mqtt!, broker: `mqtt://127.0.0.1:${other.port}` } },
    ]);
    await soon(() => expect(brokers.stateOf(meter.id)?.state).toBe('listens'));
    await broker.say('house/plug', said(1));
    await other.say('house/plug', said(2));
    await soon(() => expect(instants()).toEqual([T + 2]));
    await brokers.sync([]);
    expect(brokers.stateOf(meter.id)).toBeUndefined();
  });

  it('at an address that nobody can call says so, and keeps no other from being heard', async () => {
    const { broker, brokers, meter, instants } = await listening();
    const wrong = {
      ...meter,
      id: randomUUID(),
      mqtt: { ...meter.mqtt!, broker: 'mqtt://x:99999' },
    };
    await brokers.sync([wrong, meter]);
    expect(brokers.stateOf(wrong.id)).toMatchObject({ state: 'away' });
    await broker.say('house/plug', said(1));
    await soon(() => expect(instants()).toEqual([T + 1]));
  });

  it('that nobody answers for says so', async () => {
    const brokers = new Brokers({ again: 50, changed: () => {}, take: () => {} });
    open.push(brokers);
    const id = randomUUID();
    const mqtt = { broker: 'mqtt://127.0.0.1:1', topic: 'a', unit: 'W' as const };
    await brokers.sync([{ id, version: 1, name: 'x', machineId: id, mqtt }]);
    await soon(() =>
      expect(brokers.stateOf(id)).toMatchObject({
        state: 'away',
        says: expect.stringMatching(/answers|says/),
      }),
    );
  });

  it('that turns our name away says so', async () => {
    const broker = await Broker.open();
    open.push(broker);
    broker.aedes.authenticate = (_client, _user, _password, done) => {
      done(Object.assign(new Error('no'), { returnCode: 5 }), false);
    };
    const brokers = new Brokers({ again: 50, changed: () => {}, take: () => {} });
    open.push(brokers);
    const id = randomUUID();
    const mqtt = { broker: `mqtt://127.0.0.1:${broker.port}`, topic: 'a', unit: 'W' as const };
    await brokers.sync([{ id, version: 1, name: 'x', machineId: id, mqtt }]);
    await soon(() => expect(brokers.stateOf(id)?.state).toBe('refused'));
  });
});

describe('a message', () => {
  const now = Date.now();
  const read = (text: string, reading: object = {}) =>
    readMessage(Buffer.from(text), { unit: 'W', ...reading }, now);

  it('is a number by itself, or one in JSON at a pointer', () => {
    expect(read('12.5')).toEqual({ at: now, watts: 12.5 });
    expect(read('{"a":{"b/c":["7"]}}', { figure: '/a/b~1c/0', unit: 'kWh' })).toEqual({
      ...{ at: now, wattHours: 7000 },
    });
    expect(read('{"constructor":1}', { figure: '/toString' })).toContain('nothing at');
  });

  it.each(['', 'off', 'NaN', '-4', '99999', '{"power":5}', `"${'x'.repeat(65_000)}"`])(
    'that tells nothing says why: %s',
    (text) => {
      expect(read(text)).toEqual(expect.any(String));
    },
  );
});
