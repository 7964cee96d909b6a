import { ACTIVES, DOSE_UNITS } from './vocabulary.js';
import Type, { type Static, type TProperties } from 'typebox';

/* What the instruments take in over the API: figures with their units. Ranges are checked by each. */

const closed = <P extends TProperties>(properties: P, title?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(title ? { title } : {}) });
const oneOf = <const T extends readonly (string | number)[]>(values: T) =>
  Type.Unsafe<T[number]>({ enum: [...values] });

export const GivenAmount = closed({
  value: Type.Number(),
  unit: Type.String({ minLength: 1, maxLength: 12 }),
});

/** Figures by name; which are needed, and in which range, the instrument says. */
const figures = <const N extends readonly string[]>(...names: N) =>
  Object.fromEntries(names.map((name) => [name, Type.Optional(GivenAmount)])) as {
    [K in N[number]]: ReturnType<typeof Type.Optional<typeof GivenAmount>>;
  };

const VentPiece = Type.Unsafe<
  | { is: 'hose'; length: Static<typeof GivenAmount>; stretched: boolean }
  | { is: 'straight'; length: Static<typeof GivenAmount>; direction: 'level' | 'up' | 'down' }
  | { is: 'elbow'; angle: 45 | 90; radius: 'mitered' | '4-in' | '6-in' | '8-in' | '10-in' }
  | { is: 'narrow'; diameter: Static<typeof GivenAmount> }
  | { is: 'hood'; state: 'free' | 'linted' | 'stuck'; screened: boolean }
>({
  type: 'object',
  properties: {
    is: { enum: ['hose', 'straight', 'elbow', 'narrow', 'hood'] },
    length: GivenAmount,
    diameter: GivenAmount,
    stretched: { type: 'boolean' },
    direction: { enum: ['level', 'up', 'down'] },
    angle: { enum: [45, 90] },
    radius: { enum: ['mitered', '4-in', '6-in', '8-in', '10-in'] },
    state: { enum: ['free', 'linted', 'stuck'] },
    screened: { type: 'boolean' },
  },
  required: ['is'],
  additionalProperties: false,
});

export const VentRunInput = closed(
  {
    pieces: Type.Array(VentPiece, { minItems: 1, maxItems: 60 }),
    material: oneOf(['smooth-metal', 'semi-rigid', 'foil-flex']),
    ...figures('diameter', 'lining', 'temperature', 'shutOff', 'freeFlow', 'limit', 'makerLimit'),
  },
  'VentRunInput',
);
export type VentRunInput = Static<typeof VentRunInput>;

export const HoodAirInput = closed(
  { ...figures('speed', 'area', 'bag', 'seconds', 'best') },
  'HoodAirInput',
);
export const ExhaustAirInput = closed(
  { ...figures('room', 'roomHumidity', 'exhaust', 'exhaustHumidity', 'flow') },
  'ExhaustAirInput',
);
export const DryingTestInput = closed(
  {
    ...figures('dry', 'wet', 'after', 'minutes', 'energy'),
    /** rpm of the spin before. */
    spin: Type.Optional(Type.Number()),
  },
  'DryingTestInput',
);
export const DrumModelInput = closed(
  { ...figures('dry', 'moisture', 'target', 'flow', 'heater', 'room', 'humidity', 'thermostat') },
  'DrumModelInput',
);
export const LintScreenInput = closed(
  { ...figures('seconds'), film: Type.Optional(oneOf(['runs', 'beads', 'pools', 'stands'])) },
  'LintScreenInput',
);
export const MoistureSensorInput = closed(
  {
    dry: oneOf(['zero', 'figure', 'open']),
    damp: oneOf(['zero', 'figure', 'open']),
    cleaned: Type.Boolean(),
    sameStrip: Type.Optional(Type.Boolean()),
    changed: Type.Optional(Type.Boolean()),
  },
  'MoistureSensorInput',
);
export const RunningCostInput = closed(
  {
    ...figures('flowNow', 'flowClean', 'dry', 'moisture', 'heater', 'room'),
    price: Type.Number(),
    loadsPerWeek: Type.Number(),
  },
  'RunningCostInput',
);
export const TubWaterInput = closed(
  { ...figures('height', 'radius', 'depth', 'hose'), lying: Type.Optional(Type.Boolean()) },
  'TubWaterInput',
);
export const DrainTestInput = closed(
  { ...figures('litres', 'seconds', 'bucketLitres', 'bucketSeconds', 'clean') },
  'DrainTestInput',
);
export const FillFlowInput = closed({ ...figures('volume', 'seconds', 'manual') }, 'FillFlowInput');
export const StandpipeInput = closed(
  {
    ...figures('overWeir', 'hoseTop', 'inserted', 'inside'),
    code: Type.Optional(oneOf(['IPC', 'UPC'])),
  },
  'StandpipeInput',
);
export const VinegarSodaInput = closed(
  { ...figures('vinegar', 'strength', 'soda') },
  'VinegarSodaInput',
);
export const DoseInput = closed(
  {
    ...figures('load', 'hardness'),
    detergent: closed({
      unit: oneOf(DOSE_UNITS),
      soft: Type.Number(),
      medium: Type.Number(),
      hard: Type.Number(),
      labelLoad: Type.Number(),
      density: Type.Optional(Type.Number()),
      actives: Type.Optional(Type.Array(oneOf(ACTIVES))),
      pack: Type.Optional(Type.Number({ exclusiveMinimum: 0, maximum: 100000 })),
      price: Type.Optional(Type.Number({ minimum: 0, maximum: 100000 })),
    }),
    soil: oneOf(['light', 'normal', 'heavy']),
    poured: Type.Optional(closed({ value: Type.Number(), unit: oneOf(DOSE_UNITS) })),
    loadsPerWeek: Type.Number(),
  },
  'DoseInput',
);
export const ScaleInput = closed(
  {
    ...figures('hardness', 'litres', 'litresADay'),
    temperature: Type.Optional(oneOf([40, 60, 90])),
  },
  'ScaleInput',
);
export const LevelInput = closed(
  {
    ...figures('across', 'along', 'width', 'depth'),
    thread: Type.Optional(oneOf(['M8', 'M10', 'M12'])),
  },
  'LevelInput',
);

export const INSTRUMENT_INPUTS = {
  VentRunInput,
  HoodAirInput,
  ExhaustAirInput,
  DryingTestInput,
  DrumModelInput,
  LintScreenInput,
  MoistureSensorInput,
  RunningCostInput,
  TubWaterInput,
  DrainTestInput,
  FillFlowInput,
  StandpipeInput,
  VinegarSodaInput,
  DoseInput,
  ScaleInput,
  LevelInput,
} as const;
export type InstrumentInput<N extends keyof typeof INSTRUMENT_INPUTS> = Static<
  (typeof INSTRUMENT_INPUTS)[N]
>;
