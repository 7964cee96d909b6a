import Type, { type Static, type TProperties } from 'typebox';

/* A vent run as it is given: figures with their units. Their ranges are checked by the instrument. */

const closed = <P extends TProperties>(properties: P, title?: string) =>
  Type.Object(properties, { additionalProperties: false, ...(title ? { title } : {}) });
const oneOf = <const T extends readonly (string | number)[]>(values: T) =>
  Type.Unsafe<T[number]>({ enum: [...values] });

const GivenAmount = closed({
  value: Type.Number(),
  unit: Type.String({ minLength: 1, maxLength: 12 }),
});

/** Figures by name; which are needed, and in which range, the instrument says. */
const figures = <const N extends readonly string[]>(...names: N) =>
  Object.fromEntries(names.map((name) => [name, Type.Optional(GivenAmount)])) as {
    [K in N[number]]: ReturnType<typeof Type.Optional<typeof GivenAmount>>;
  };

const VentPiece = Type.Unsafe<
  | { is: 'screen'; blocked: Static<typeof GivenAmount> }
  | { is: 'hose'; length: Static<typeof GivenAmount>; stretched: boolean }
  | { is: 'straight'; length: Static<typeof GivenAmount>; direction: 'level' | 'up' | 'down' }
  | { is: 'elbow'; angle: 45 | 90; radius: 'mitered' | '4-in' | '6-in' | '8-in' | '10-in' }
  | { is: 'narrow'; diameter: Static<typeof GivenAmount> }
  | { is: 'hood'; state: 'free' | 'linted' | 'stuck'; screened: boolean }
>({
  type: 'object',
  properties: {
    is: { enum: ['screen', 'hose', 'straight', 'elbow', 'narrow', 'hood'] },
    blocked: GivenAmount,
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
    ...figures(
      'diameter',
      'lining',
      'temperature',
      'shutOff',
      'freeFlow',
      'altitude',
      'limit',
      'makerLimit',
    ),
  },
  'VentRunInput',
);
export type VentRunInput = Static<typeof VentRunInput>;
