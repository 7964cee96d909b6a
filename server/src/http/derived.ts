import derived from './derived.generated.json' with { type: 'json' };

type Schemas = Readonly<Record<string, object>>;

/** Schemas of the answers that are worked out, by their names; made from their types (tools/derived.ts). */
export const DERIVED_ANSWERS: Schemas = derived.answers;

/** What each instrument takes in, and what it answers, by its name. */
export const INSTRUMENT_INPUTS: Schemas = derived.instruments.inputs;
export const INSTRUMENT_ANSWERS: Schemas = derived.instruments.answers;
