import { check, isWasher, type FieldProblem } from '@needlecase/core';
import { readSample, type Sample } from '@needlecase/core/loads/live/samples';
import {
  Meter,
  MetersView,
  SamplesKept,
  type MeterDraft,
  type StandInDraft,
} from '@needlecase/core/model/meters';
import { STAND_IN_BROKER } from '@needlecase/core/model/stand-ins';
import { DRAFTS } from '@needlecase/core/model/schemas';
import Type from 'typebox';
import { byWhom, type Ground } from '../access/ground.js';
import { invalid, notFound, ProblemError } from '../http/problem.js';
import { longRoute, type Ask, type Route } from '../http/route.js';
import type { Brokers } from '../meters/brokers.js';
import type { LiveMeters } from '../meters/live-meters.js';
import type { StandInPlug } from '../meters/stand-in-plug.js';
import type { KeptMeter } from '../store/meters.js';
import { mustHaveRoom, MOST } from '../work/ceilings.js';
import { householdOf } from '../work/household.js';
import { currentOf } from '../work/records.js';

/** Samples of a request. */
export const MOST_SAMPLES = 10_000;
/** Of a request, those that are told one by one as left out. */
const MOST_TOLD = 50;

/** A body that has a draft, for a route that sees to its transactions itself. */
const draft = (name: 'MeterDraft' | 'StandInDraft') => ({
  schema: DRAFTS[name],
  check: (body: unknown): FieldProblem[] =>
    check(name, body).map(({ field, message }) => ({ field, message: WORDS[field] ?? message })),
});
/** What is to be given where nothing that fits was. */
const WORDS: Readonly<Record<string, string>> = {
  'mqtt.broker': 'Give its address, such as mqtt://broker.example:1883.',
  'mqtt.topic': 'Give the one topic of this plug, without + or #.',
  'mqtt.figure': 'Say where it is, each part after a slash: /energy/power.',
  'mqtt.instant': 'Say where it is, each part after a slash: /time.',
};

export interface Plugs {
  live: LiveMeters;
  brokers: Brokers;
  standIn?: StandInPlug;
}

/** Meters that speak as they go on: which there are, what they say, and taking in what they say. */
export function metersRoutes({ store, access }: Ground, plugs: () => Plugs): Route[] {
  const { meters } = store;
  const meterOf = (id: string): KeptMeter => {
    const meter = meters.get(id);
    if (!meter) throw notFound('meter');
    return meter;
  };
  const told = (meter: KeptMeter): Meter => {
    const { live, brokers } = plugs();
    const { mqtt, ...rest } = meter;
    const newest = live.newest(meter.id);
    const heard = live.heard(meter.id);
    const running = live.running(meter.id);
    const broker = brokers.stateOf(meter.id);
    return {
      ...rest,
      lately: live.lately(meter.id),
      ...(mqtt ? { mqtt: { ...mqtt, password: mqtt.password !== undefined } } : {}),
      ...(newest ? { newest: { ...newest, at: iso(newest.at) } } : {}),
      ...(heard === undefined ? {} : { heard: iso(heard) }),
      ...(running
        ? { running: { from: iso(running.from), wattHours: Math.round(running.wattHours) } }
        : {}),
      ...(broker ? { broker } : {}),
    };
  };
  /** With a token that is told this once, for one that sends by itself. */
  const withToken = (ask: Ask, meter: KeptMeter): Meter => {
    access.tokens.revokeOf(meter.id);
    const { token } = access.tokens.make({ name: meter.name, scopes: ['samples:write'] }, meter.id);
    access.events.note('token made', { ...byWhom(ask), more: meter.name });
    return { ...told(meter), ...(token === undefined ? {} : { token }) };
  };
  /** A meter that goes to another machine: what it said is read for the one that it was at. */
  const moveOn = (id: string, after: MeterDraft): void => {
    const before = meters.get(id);
    if (before && isElsewhere(before, after)) plugs().live.read(before);
  };
  const changed = (id: string): void => {
    store.tell({ topic: 'meters', id });
    void plugs().brokers.sync(meters.list());
  };

  return [
    longRoute({
      method: 'get',
      path: '/api/v1/meters',
      summary: 'Meters that speak as they go on, and what they said last',
      answers: MetersView,
      handle: () => ({
        body: { meters: meters.list().map(told), standIn: plugs().standIn !== undefined },
      }),
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/meters',
      summary: 'Set up a meter; one that sends by itself gets a token, which is told this once',
      reads: draft('MeterDraft'),
      answers: Meter,
      handle: (ask) => {
        const meter = store.writeBeside(() => {
          const right = mustFit(ask.body as MeterDraft);
          // Asked once more since the answer was lost: the token that nobody saw is made anew.
          const there = right.id === undefined ? undefined : meters.get(right.id);
          if (there) mustBeSame(there, right);
          else mustHaveRoom(meters.list().length, MOST.meters, 'meters');
          const made = there ?? meters.create(right);
          return made.mqtt ? told(made) : withToken(ask, made);
        });
        changed(meter.id);
        return { status: 201, body: meter, version: meter.version };
      },
    }),
    longRoute({
      method: 'put',
      path: '/api/v1/meters/{id}',
      summary: 'Change a meter',
      reads: draft('MeterDraft'),
      guarded: true,
      answers: Meter,
      handle: (ask) => {
        moveOn(ask.params.id, ask.body as MeterDraft);
        const meter = store.writeBeside(() => {
          const before = currentOf('meter', (id) => meters.get(id), ask);
          const after = meters.replace(
            before.id,
            before.version,
            withPassword(mustFit(ask.body as MeterDraft), before),
          );
          if (after.mqtt) access.tokens.revokeOf(after.id);
          if (isElsewhere(before, after)) {
            // What it said so far was of another machine.
            meters.forget(after.id, Infinity);
            plugs().live.forget(after.id);
          }
          return told(after);
        });
        changed(meter.id);
        return { body: meter, version: meter.version };
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/meters/{id}/token',
      summary: 'Make a new token for a meter, told this once; the one before is taken back',
      answers: Meter,
      handle: (ask) =>
        store.writeBeside(() => ({ status: 201, body: withToken(ask, meterOf(ask.params.id)) })),
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/meters/{id}',
      summary: 'Take a meter away; the loads that it told stay',
      answers: Type.Object({ removed: Type.String() }, { additionalProperties: false }),
      handle: (ask) => {
        const { id } = meterOf(ask.params.id);
        // What it said up to now is read first.
        plugs().live.read(meterOf(id));
        store.writeBeside(() => {
          access.tokens.revokeOf(id);
          meters.remove(id);
        });
        plugs().live.forget(id);
        changed(id);
        return { body: { removed: id } };
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/meters/{id}/samples',
      summary: `Take in what a meter reads, as a JSON array or a line of JSON each (application/x-ndjson), ${MOST_SAMPLES} at most; what cannot be is told by its place, and the rest is kept`,
      reads: {
        schema: {
          type: 'array',
          maxItems: MOST_SAMPLES,
          items: {
            type: 'object',
            properties: {
              at: { type: ['string', 'number'] },
              watts: { type: 'number' },
              wattHours: { type: 'number' },
            },
            required: ['at'],
          },
        },
        check: () => [],
      },
      lines: true,
      answers: SamplesKept,
      handle: (ask) => {
        const meter = meterOf(ask.params.id);
        const { samples, problems } = readSamples(ask.body);
        const kept = plugs().live.take(meter, samples);
        if (!problems.length) return { status: 201, body: kept };
        throw new ProblemError(422, 'Some of it cannot be, and was left out.', {
          detail: `${samples.length} of ${samples.length + problems.length} samples were taken in.`,
          errors: problems.slice(0, MOST_TOLD),
        });
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/meters/{id}/stand-in',
      summary: 'Let a plug that stands in for a real one run a programme on a meter',
      reads: draft('StandInDraft'),
      answers: Meter,
      handle: (ask) => {
        const meter = meterOf(ask.params.id);
        const { standIn, live } = plugs();
        if (!standIn || meter.mqtt?.broker !== STAND_IN_BROKER) {
          throw new ProblemError(409, 'No plug stands in for this meter.');
        }
        standIn.run(meter.mqtt.topic, ask.body as StandInDraft, live.newest(meter.id)?.at);
        return { status: 201, body: told(meter) };
      },
    }),
  ];

  function mustFit(given: MeterDraft): MeterDraft {
    householdOf(store);
    const problems: FieldProblem[] = [];
    const machine = store.machines.get(given.machineId);
    const dryer = given.dryerId === undefined ? undefined : store.machines.get(given.dryerId);
    if (!machine || machine.retired) {
      problems.push({ field: 'machineId', message: 'There is no such machine.' });
    }
    if (given.dryerId !== undefined) {
      if (!dryer || dryer.retired) {
        problems.push({ field: 'dryerId', message: 'There is no such machine.' });
      } else if (isWasher(dryer.kind) || (machine && !isWasher(machine.kind))) {
        problems.push({
          field: 'dryerId',
          message: 'Two machines of one socket are a washer and a dryer, in this order.',
        });
      }
    }
    const standsIn = given.mqtt?.broker === STAND_IN_BROKER;
    if (given.mqtt && !URL.canParse(given.mqtt.broker)) {
      problems.push({ field: 'mqtt.broker', message: WORDS['mqtt.broker']! });
    }
    if (standsIn && !plugs().standIn) {
      problems.push({ field: 'mqtt.broker', message: 'No plug stands in here.' });
    }
    if (problems.length) throw invalid(problems);
    return given;
  }
}

const isElsewhere = (a: MeterDraft, b: MeterDraft): boolean =>
  a.machineId !== b.machineId || a.dryerId !== b.dryerId;

/** A password stays where none is given, for the same broker and no other. */
function withPassword(given: MeterDraft, { mqtt: before }: KeptMeter): MeterDraft {
  const { mqtt } = given;
  if (!mqtt || !before || mqtt.password !== undefined || before.password === undefined)
    return given;
  if (mqtt.broker !== before.broker || mqtt.user !== before.user) return given;
  return { ...given, mqtt: { ...mqtt, password: before.password } };
}

/** A meter that is set up once more is the one that was. @throws 409 where another has its id */
function mustBeSame(there: KeptMeter, asked: MeterDraft): void {
  const same =
    there.name === asked.name &&
    there.machineId === asked.machineId &&
    there.dryerId === asked.dryerId &&
    there.mqtt?.topic === asked.mqtt?.topic;
  if (!same) throw new ProblemError(409, 'There is another meter of this id.');
}

/**
 * Samples out of a body: an array, or lines.
 * @throws 422 where it is neither, or longer than a request may be
 */
function readSamples(body: unknown): { samples: Sample[]; problems: FieldProblem[] } {
  const given =
    typeof body === 'string' ? body.split('\n').filter((line) => line.trim() !== '') : body;
  if (!Array.isArray(given)) {
    throw invalid([{ field: '', message: 'Give an array of samples, or one a line.' }]);
  }
  if (given.length > MOST_SAMPLES) {
    throw invalid([{ field: '', message: `Give at most ${MOST_SAMPLES} samples at once.` }]);
  }
  const samples: Sample[] = [];
  const problems: FieldProblem[] = [];
  const now = Date.now();
  given.forEach((one: unknown, i) => {
    const value = typeof body === 'string' ? parsed(one as string) : one;
    const read = readSample(value, now);
    if ('sample' in read) samples.push(read.sample);
    else if (value === undefined) problems.push({ field: `${i}`, message: 'This is no JSON.' });
    else problems.push({ field: `${i}.${read.problem.field}`, message: read.problem.message });
  });
  return { samples, problems };
}

function parsed(line: string): unknown {
  try {
    return JSON.parse(line) as unknown;
  } catch {
    return undefined;
  }
}

const iso = (at: number): string => new Date(at).toISOString();
