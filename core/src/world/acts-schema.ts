import Type, { type TSchema } from 'typebox';
import { PARTS, RUNS, SIGNS, ZONES } from './acts.js';
import { FACTS } from './facts.js';

const words = (all: readonly string[]) => Type.Enum([...all]);
const strict = { additionalProperties: false };

/** An object with a part for every fact of the world. */
const ofFacts = (each: (values: readonly string[]) => TSchema) =>
  Type.Object(
    Object.fromEntries(
      Object.entries(FACTS).map(([fact, values]) => [fact, Type.Optional(each(values))]),
    ),
    { ...strict, minProperties: 1 },
  );

const part = words(PARTS);
const left = Type.Object({ part, minutes: Type.Number({ exclusiveMinimum: 0 }) }, strict);
const yes = Type.Optional(Type.Literal(true));

/** JSON Schema of what a step is to the machine (`Acts`); every step of the catalogue is held to it. */
export const ActsSchema = Type.Object(
  {
    at: words(Object.keys(ZONES)),
    needs: Type.Optional(ofFacts((values) => Type.Array(words(values), { minItems: 1 }))),
    does: Type.Optional(ofFacts(words)),
    cools: yes,
    runs: Type.Optional(words(Object.keys(RUNS))),
    proves: Type.Optional(Type.Array(words(Object.keys(SIGNS)), { minItems: 1 })),
    drains: yes,
    stopsIfFull: yes,
    soaks: Type.Optional(left),
    dries: Type.Optional(left),
    touches: Type.Optional(part),
    waits: yes,
    wets: Type.Optional(part),
    coats: Type.Optional(part),
    clears: yes,
    cleans: yes,
    people: Type.Optional(Type.Literal(2)),
  },
  strict,
);
