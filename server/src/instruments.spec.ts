import { INSTRUMENTS, type Instrument } from '@needlecase/core';
import Ajv from 'ajv/dist/2020.js';
import { describe, expect, it } from 'vitest';
import { INSTRUMENT_ANSWERS } from './http/derived.js';
import { emptyApp } from './testing/household.js';

const { api } = emptyApp();
/** What the API calls each instrument. */
const NAMES = INSTRUMENTS.map(({ name, ...row }: Instrument) => ({
  row: name,
  name: row.api ?? name,
}));
const ajv = new Ajv.default({ strict: false });
const of = (value: number, unit: string) => ({ value, unit });
const ask = (name: string, body: object) => api.post(`/api/v1/instruments/${name}`).send(body);

/** A right question to each instrument, and what it must answer. Sources are beside the core's tests. */
const ASKED: Record<string, [body: object, wanted: object]> = {
  'vent-run': [
    {
      pieces: [
        { is: 'straight', length: of(10, 'ft'), direction: 'up' },
        { is: 'elbow', angle: 90, radius: '6-in' },
        { is: 'hood', state: 'free', screened: false },
      ],
      material: 'smooth-metal',
      diameter: of(4, 'in'),
    },
    { code: { passes: true } },
  ],
  'hood-air': [{ bag: of(113, 'L'), seconds: of(2, 's') }, { verdict: 'healthy' }],
  'exhaust-air': [
    {
      room: of(20, '°C'),
      roomHumidity: of(50, '%'),
      exhaust: of(131, '°F'),
      exhaustHumidity: of(40, '%'),
      flow: of(50, 'L/s'),
    },
    {},
  ],
  'drying-test': [
    {
      dry: of(3, 'kg'),
      wet: of(4.6, 'kg'),
      after: of(3.09, 'kg'),
      minutes: of(55, 'min'),
      spin: 1000,
    },
    { fault: 'none' },
  ],
  'drum-model': [
    {
      dry: of(8.45, 'lb'),
      moisture: of(57.5, '%'),
      target: of(4, '%'),
      flow: of(60, 'L/s'),
      heater: of(5.4, 'kW'),
      room: of(24, '°C'),
      humidity: of(50, '%'),
    },
    { dried: true, limitCuts: 0 },
  ],
  'lint-screen': [{ film: 'pools' }, { grade: 3 }],
  'moisture-sensor': [{ dry: 'open', damp: 'figure', cleaned: false }, { outcome: 'works' }],
  'running-cost': [
    {
      flowNow: of(25, 'L/s'),
      flowClean: of(60, 'L/s'),
      dry: of(3, 'kg'),
      moisture: of(60, '%'),
      heater: of(5, 'kW'),
      room: of(18, '°C'),
      price: 0.3,
      loadsPerWeek: 5,
    },
    {},
  ],
  'repair-or-replace': [
    { bill: 120, price: 660, age: 5 },
    { better: 'repair', paysUpTo: 180 },
  ],
  'tub-water': [{ height: of(15, 'cm'), radius: of(26, 'cm'), depth: of(35, 'cm') }, { trays: 12 }],
  'drain-test': [{ litres: of(15, 'L'), seconds: of(160, 's') }, { verdict: 'clean-now' }],
  'fill-flow': [{ volume: of(3, 'L'), seconds: of(30, 's') }, { slow: true }],
  standpipe: [
    { overWeir: of(30, 'in'), hoseTop: of(40, 'cm'), inserted: of(20, 'cm') },
    { right: false },
  ],
  'vinegar-soda': [
    { vinegar: of(2, 'cup'), strength: of(5, '%'), soda: of(2, 'cup') },
    { dissolves: 0 },
  ],
  dose: [
    {
      load: of(4.5, 'kg'),
      hardness: of(200, 'mg/L'),
      detergent: { unit: 'ml', soft: 55, medium: 75, hard: 95, labelLoad: 4.5 },
      soil: 'normal',
      loadsPerWeek: 5,
    },
    { needed: 75, band: 'medium' },
  ],
  scale: [{ hardness: of(300, 'mg/L'), litres: of(2000, 'L'), temperature: 60 }, { doses: 2 }],
  level: [
    { across: of(4, 'mm/m'), along: of(0, 'mm/m'), width: of(54, 'cm'), depth: of(50, 'cm') },
    { level: false },
  ],
};

describe('POST /api/v1/instruments/{name}', () => {
  it.each(NAMES.map(({ name }) => name))(
    '%s answers with its working, and needs no household',
    async (name) => {
      const [body, wanted] = ASKED[name]!;
      const answer = await ask(name, body).expect(200);
      expect(answer.body).toMatchObject(wanted);
      const { row } = NAMES.find((one) => one.name === name)!;
      const right = ajv.compile(INSTRUMENT_ANSWERS[row]!);
      right(answer.body);
      expect(right.errors).toBeNull();
      if (name !== 'drum-model') expect(answer.body.working.length).toBeGreaterThan(0);
    },
  );

  it.each(NAMES.map(({ name }) => name))(
    '%s says its figures in the units asked for, and leaves no mark in a sentence',
    async (name) => {
      const [body] = ASKED[name]!;
      const [metric, us] = await Promise.all([
        ask(name, body).expect(200),
        ask(`${name}?units=us`, body).expect(200),
      ]);
      for (const { text } of [metric, us]) expect(text).not.toMatch(/[\u27e6\u27e7\u2502]/);
      const { working: _metric, ...figures } = metric.body;
      const { working: _us, ...same } = us.body;
      // Only sentences differ: figures are in the core's own units.
      expect(Object.keys(same)).toEqual(Object.keys(figures));
    },
  );

  it('says the working in inches and gallons, and refuses units that it does not know', async () => {
    const [body] = ASKED['tub-water']!;
    const { working } = (await ask('tub-water?units=us', body).expect(200)).body;
    expect(working[0].how).toContain('radius 10.2 in');
    // 17.8 L; a US gallon is 3.785411784 L (NIST Handbook 44, appendix C).
    const gallons = Number(/: ([\d.]+) gal/.exec(working[0].how)![1]);
    expect(gallons * 3.785411784).toBeCloseTo(17.8, 1);
    const wrong = await ask('tub-water?units=imperial', body).expect(422);
    expect(wrong.body.errors).toEqual([{ field: 'units', message: 'Choose one of: metric, us.' }]);
    const high = await ask('tub-water?units=us', { ...body, height: of(70, 'cm') }).expect(422);
    expect(high.body.errors[0].message).toContain('20.5 in');
  });

  it.each<[string, object, string]>([
    ['vent-run', { ...ASKED['vent-run']![0], diameter: of(0, 'mm') }, 'diameter'],
    [
      'vent-run',
      { ...ASKED['vent-run']![0], pieces: Array.from({ length: 500 }, () => ({ is: 'hood' })) },
      'pieces',
    ],
    [
      'vent-run',
      { ...ASKED['vent-run']![0], pieces: [{ is: 'straight', length: of(-1, 'm') }] },
      'pieces.0.length',
    ],
    ['exhaust-air', { ...ASKED['exhaust-air']![0], exhaust: of(10, '°C') }, 'exhaust'],
    [
      'exhaust-air',
      { ...ASKED['exhaust-air']![0], exhaustHumidity: of(140, '%') },
      'exhaustHumidity',
    ],
    ['drying-test', { ...ASKED['drying-test']![0], wet: of(13, 'kg') }, 'wet'],
    ['drum-model', { ...ASKED['drum-model']![0], moisture: of(310, '%') }, 'moisture'],
    ['tub-water', { ...ASKED['tub-water']![0], height: of(70, 'cm') }, 'height'],
    ['drain-test', { litres: of(15, 'L'), seconds: of(0, 's') }, 'seconds'],
    ['scale', { hardness: of(5000, 'mg/L'), litres: of(10, 'L') }, 'hardness'],
    ['dose', { ...ASKED['dose']![0], poured: { value: -1, unit: 'ml' } }, 'poured'],
    ['dose', { ...ASKED['dose']![0], poured: { value: 9, unit: 'g' } }, 'detergent.density'],
    [
      'level',
      { across: of(4, 'mm/m'), along: of(0, 'kg'), width: of(54, 'cm'), depth: of(50, 'cm') },
      'along',
    ],
    ['hood-air', { bag: of(113, 'L'), seconds: 'soon' }, 'seconds'],
  ])('%s refuses %o at %s', async (name, body, field) => {
    const { body: problem } = await ask(name, body).expect(422);
    expect(problem.errors.map((one: { field: string }) => one.field)).toContain(field);
    expect(problem.errors[0].message.length).toBeGreaterThan(8);
  });

  /** Whether every number in an answer is one. */
  const isSound = (value: unknown): boolean =>
    value === null
      ? false
      : typeof value === 'number'
        ? Number.isFinite(value)
        : typeof value === 'object'
          ? Object.values(value).every(isSound)
          : true;

  /** Every place in a body that holds a figure with its unit, or a bare number. */
  function placesIn(body: unknown, path: (string | number)[] = []): (string | number)[][] {
    if (typeof body === 'number') return [path];
    if (typeof body !== 'object' || body === null) return [];
    if ('value' in body && 'unit' in body) return [path];
    return Object.entries(body).flatMap(([key, value]) =>
      placesIn(value, [...path, Array.isArray(body) ? Number(key) : key]),
    );
  }
  function changed(body: object, path: readonly (string | number)[], to: unknown): object {
    const copy = structuredClone(body) as Record<string | number, unknown>;
    let at = copy;
    for (const key of path.slice(0, -1)) at = at[key] as Record<string | number, unknown>;
    at[path.at(-1)!] = to;
    return copy;
  }

  it.each(Object.keys(ASKED))(
    '%s refuses absurd figures beside their field, and never answers with what is no number',
    async (name) => {
      const [body] = ASKED[name]!;
      for (const path of placesIn(body)) {
        const was = path.reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], body);
        const amount = was as { value: number; unit: string };
        const isAmount = typeof was === 'object';
        const figures = [1e308, -1e308, 5e-324, -5e-324, 1e-300, Number.MAX_SAFE_INTEGER];
        const absurd: [unknown, mustRefuse: boolean][] = isAmount
          ? [
              ...figures.map((value): [unknown, boolean] => [
                { value, unit: amount.unit },
                Math.abs(value) > 1e6,
              ]),
              ...['toString', '__proto__', 'constructor', 'hasOwnProperty', 'parsec', ''].map(
                (unit): [unknown, boolean] => [{ value: amount.value, unit }, true],
              ),
              [
                { value: amount.value, unit: ['kg', 'lb'].includes(amount.unit) ? 'm' : 'kg' },
                true,
              ],
              [amount.value, true],
              [null, true],
              [{ value: String(amount.value), unit: amount.unit }, true],
            ]
          : [...figures.map((value): [unknown, boolean] => [value, Math.abs(value) > 1e6])];
        for (const [to, mustRefuse] of absurd) {
          const answer = await ask(name, changed(body, path, to));
          const said = `${name} ${path.join('.')} = ${JSON.stringify(to)}`;
          expect([200, 422], said).toContain(answer.status);
          if (mustRefuse) expect(answer.status, said).toBe(422);
          if (answer.status === 200) expect(isSound(answer.body), said).toBe(true);
          else {
            const { errors } = answer.body as { errors: { field: string; message: string }[] };
            expect(errors.length, said).toBeGreaterThan(0);
            for (const { message } of errors) expect(message, said).toMatch(/\.$/);
          }
        }
      }
    },
  );

  it('names the units where a figure is missing or bare, and checks the best of the hood', async () => {
    const [bag] = ASKED['hood-air']!;
    const missing = await ask('hood-air', { bag: of(113, 'L') }).expect(422);
    expect(JSON.stringify(missing.body.errors)).toContain('With its unit, one of: s,');
    const bare = await ask('hood-air', { ...bag, seconds: 2 }).expect(422);
    expect(JSON.stringify(bare.body.errors)).toMatch(/"field":"seconds".*one of: s, /);
    for (const best of [of(1e9, 'L/s'), of(-1, 'L/s'), of(3, 'kg')]) {
      const { body } = await ask('hood-air', { ...bag, best }).expect(422);
      expect(body.errors[0].field).toBe('best');
    }
  });

  it('is in the OpenAPI document, each with its own input', async () => {
    const { body } = await api.get('/api/openapi.json').expect(200);
    for (const { name } of NAMES) {
      const { requestBody } = body.paths[`/api/v1/instruments/${name}`].post;
      expect(requestBody.content['application/json'].schema.type).toBe('object');
    }
  });

  it('knows no other', async () => {
    await ask('divining-rod', {}).expect(404);
  });
});
