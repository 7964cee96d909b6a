import { INSTRUMENTS, inUnits, MeasureProblem, type Instrument } from '@needlecase/core';
import { checkInstrument } from '@needlecase/core/model/check-asked';
import { INSTRUMENT_ANSWERS, INSTRUMENT_INPUTS } from '../http/derived.js';
import { invalid } from '../http/problem.js';
import type { ReadIn } from '@needlecase/core';
import type { Ask, Route } from '../http/route.js';

/** A schema of an instrument's input, as far as it is looked at here. */
interface Shape {
  $ref?: string;
  properties?: Record<string, Shape>;
}

/**
 * A bare number where a figure with its unit belongs becomes one without a unit, so that the instrument says
 * which units it takes.
 */
function withoutUnit(body: unknown, { properties = {} }: Shape): unknown {
  if (typeof body !== 'object' || body === null) return body;
  const given = body as Record<string, unknown>;
  for (const [name, shape] of Object.entries(properties)) {
    const isAmount = shape.properties?.['unit'] !== undefined;
    if (isAmount && typeof given[name] === 'number') given[name] = { value: given[name], unit: '' };
  }
  return body;
}

/** The instruments' arithmetic. Nothing is stored. */
export const instrumentRoutes = (): Route[] =>
  INSTRUMENTS.map(({ name, title, ...row }: Instrument): Route => {
    const work = row.work as (input: unknown) => Promise<object>;
    return {
      method: 'post',
      path: `/api/v1/instruments/${row.api ?? name}`,
      summary: `${title}: figures with their units in, the result with its working out; results are in m, m³/s, Pa, kg, s, °C, the sentences in the units asked for`,
      query: 'ReadIn',
      reads: {
        schema: INSTRUMENT_INPUTS[name]!,
        check: (body) => checkInstrument(name, withoutUnit(body, INSTRUMENT_INPUTS[name]!)),
      },
      reckons: true,
      answers: { derived: INSTRUMENT_ANSWERS[name]! },
      handle: async ({ query, body }: Ask) => {
        const { units = 'metric' } = query as ReadIn;
        try {
          return { status: 200, body: inUnits(await work(body), units) };
        } catch (problem) {
          if (problem instanceof MeasureProblem) throw invalid(inUnits(problem.problems, units));
          throw problem;
        }
      },
    };
  });
