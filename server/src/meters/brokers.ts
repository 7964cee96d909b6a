import type { Sample } from '@needlecase/core/loads/live/samples';
import type { Meter } from '@needlecase/core/model/meters';
import { STAND_IN_BROKER } from '@needlecase/core/model/stand-ins';
import { isDeepStrictEqual } from 'node:util';
import type { connect as Connecting, IPublishPacket, MqttClient } from 'mqtt';
import { mustBeCallable, NotCalled } from '../http/outgoing.js';
import type { KeptMeter } from '../store/meters.js';
import { readMessage } from './message.js';

type Connect = typeof Connecting;
type State = NonNullable<Meter['broker']>;
interface Line {
  meter: KeptMeter;
  client: MqttClient;
  state: State;
}

/** What is needed of the rest of the server. */
export interface BrokersSetting {
  /** Keeps what was said; thrown at where nothing can be written now. */
  take(meter: KeptMeter, samples: readonly Sample[]): void;
  /** Something about a meter's broker is other than before. */
  changed(meterId: string): void;
  /** Where the plug speaks that stands in for a real one. */
  standIn?: string;
  now?: () => number;
  /** How soon a broker is called again that went away, and how soon what could not be written is tried again, ms. */
  again?: number;
}

const AGAIN = 5000;
/** A broker that let nobody in is called again after so long, ms. */
const CONNECT_WITHIN = 10_000;
/** MQTT 3.1.1, 3.2.2.3: bad user name or password; not authorised. */
const REFUSED = [4, 5];
/** MQTT 3.1.1, 3.9.3. */
const NOT_GRANTED = 128;

/** Brokers that meters speak through: called, listened to, and called again when they were away. */
export class Brokers {
  readonly #lines = new Map<string, Line>();
  readonly #uncallable = new Map<string, State>();
  #closed = false;

  constructor(private readonly setting: BrokersSetting) {}

  stateOf(meterId: string): State | undefined {
    return this.#lines.get(meterId)?.state ?? this.#uncallable.get(meterId);
  }

  /** Listens to these meters as they are now, and to no others. */
  async sync(meters: readonly KeptMeter[]): Promise<void> {
    this.#uncallable.clear();
    const wanted = meters.filter(({ mqtt }) => mqtt);
    for (const [id, line] of this.#lines) {
      const still = wanted.find((meter) => meter.id === id);
      if (still && isDeepStrictEqual(still.mqtt, line.meter.mqtt)) line.meter = still;
      else this.#hangUp(id, line);
    }
    const fresh = wanted.filter(({ id }) => !this.#lines.has(id));
    if (!fresh.length) return;
    // Read in only where there is a broker to call.
    const { default: mqtt } = await import('mqtt');
    for (const meter of fresh) {
      if (this.#closed || this.#lines.has(meter.id)) continue;
      const says = await this.#refusedBy(meter);
      if (this.#closed || this.#lines.has(meter.id)) continue;
      try {
        if (says !== undefined) throw new Error(says);
        this.#call(meter, mqtt.connect);
      } catch {
        // An address that nobody can call: the others are called all the same.
        this.#uncallable.set(meter.id, {
          ...{ state: 'away', since: this.#now() },
          says: says ?? 'This is no address of a broker.',
        });
        this.setting.changed(meter.id);
      }
    }
  }

  close(): void {
    this.#closed = true;
    for (const [id, line] of this.#lines) this.#hangUp(id, line);
  }

  /** Why a broker's address is not called, in words; a name that cannot be looked up now may be later. */
  async #refusedBy({ mqtt }: KeptMeter): Promise<string | undefined> {
    const { broker } = mqtt!;
    if (broker === STAND_IN_BROKER || !URL.canParse(broker)) return undefined;
    try {
      await mustBeCallable(new URL(broker).hostname, 'home');
    } catch (error) {
      if (error instanceof NotCalled) return 'No broker can be at this address.';
    }
    return undefined;
  }

  #hangUp(id: string, { client }: Line): void {
    this.#lines.delete(id);
    client.removeAllListeners();
    client.on('error', () => {});
    client.end(true);
  }

  #call(meter: KeptMeter, connect: Connect): void {
    const { broker, topic, instant, user, password } = meter.mqtt!;
    const address = broker === STAND_IN_BROKER ? this.setting.standIn : broker;
    // What says when it was read may come late, and is kept for us; what does not, would come as if it were of now.
    const dated = instant !== undefined;
    const client = connect(address ?? broker, {
      clientId: `needlecase-${meter.id}`,
      clean: !dated,
      reconnectPeriod: this.setting.again ?? AGAIN,
      connectTimeout: CONNECT_WITHIN,
      ...(user === undefined ? {} : { username: user }),
      ...(password === undefined ? {} : { password }),
    });
    const line: Line = { meter, client, state: { state: 'calls', since: this.#now() } };
    this.#lines.set(meter.id, line);
    client.on('connect', () => {
      client.subscribe(topic, { qos: dated ? 1 : 0 }, (error, granted) => {
        const turnedAway = granted?.some(({ qos }) => (qos as number) === NOT_GRANTED);
        if (error ?? turnedAway) this.#say(line, 'refused', 'The broker keeps this topic from us.');
        else this.#say(line, 'listens');
      });
    });
    client.on('error', (error: Error & { code?: unknown }) => {
      const refused = REFUSED.includes(error.code as number);
      this.#say(line, refused ? 'refused' : 'away', wordsOf(error));
    });
    client.on('close', () => {
      if (line.state.state === 'listens') this.#say(line, 'away');
    });
    // Thanked for once it is kept: a broker sends again what was not.
    client.handleMessage = (packet, done) =>
      void this.#heard(line, packet, topic).then(() => done());
  }

  async #heard(line: Line, packet: IPublishPacket, topic: string): Promise<void> {
    if (packet.topic !== topic) return;
    const { meter } = line;
    const now = this.setting.now?.() ?? Date.now();
    const dated = meter.mqtt!.instant !== undefined;
    // What a broker kept, or sends once more, is of another time than now.
    if (!dated && (packet.retain || packet.dup)) return;
    const read = readMessage(Buffer.from(packet.payload), meter.mqtt!, now);
    if (typeof read === 'string') return this.#say(line, line.state.state, read);
    while (!this.#closed && this.#lines.get(meter.id) === line) {
      try {
        this.setting.take(line.meter, [read]);
        if (line.state.says !== undefined) this.#say(line, 'listens');
        return;
      } catch {
        // A full disk, a backup that is put back: it is tried until it is kept.
        await new Promise((next) => setTimeout(next, this.setting.again ?? AGAIN));
      }
    }
  }

  #now(): string {
    return new Date(this.setting.now?.() ?? Date.now()).toISOString();
  }

  #say(line: Line, state: State['state'], says?: string): void {
    const { state: before } = line;
    if (before.state === state && before.says === says) return;
    line.state = {
      state,
      since: before.state === state ? before.since : this.#now(),
      ...(says === undefined ? {} : { says }),
    };
    this.setting.changed(line.meter.id);
  }
}

function wordsOf(error: Error & { code?: unknown }): string {
  if (REFUSED.includes(error.code as number))
    return 'The broker does not take this name and password.';
  switch (error.code) {
    case 'ECONNREFUSED':
      return 'Nothing answers at this address and port.';
    case 'ENOTFOUND':
    case 'EAI_AGAIN':
      return 'There is no computer of this name.';
    case 'ETIMEDOUT':
    case 'EHOSTUNREACH':
      return 'This computer cannot be reached.';
    default:
      return `It says: ${error.message}`.slice(0, 200);
  }
}
