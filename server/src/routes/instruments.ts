import { INSTRUMENTS, inUnits, MeasureProblem, type ReadIn } from '@needlecase/core';
import Type from 'typebox';
import { invalid } from '../http/problem.js';
import type { Route } from '../http/route.js';

/** The instruments' arithmetic. Nothing is stored. */
export const instrumentRoutes = (): Route[] =>
  INSTRUMENTS.map(({ name, title, input, work }) => ({
    method: 'post',
    path: `/api/v1/instruments/${name}`,
    summary: `${title}: figures with their units in, the result with its working out; results are in m, m³/s, Pa, kg, s, °C, the sentences in the units asked for`,
    query: 'ReadIn',
    body: input,
    reckons: true,
    answers: Type.Object({}, { title: `${input.replace('Input', '')}Result` }),
    handle: ({ query, body }) => {
      const { units = 'metric' } = query as ReadIn;
      try {
        return { status: 200, body: inUnits(work(body), units) };
      } catch (problem) {
        if (problem instanceof MeasureProblem) throw invalid(inUnits(problem.problems, units));
        throw problem;
      }
    },
  }));
