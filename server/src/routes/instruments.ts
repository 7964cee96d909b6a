import { INSTRUMENTS, MeasureProblem } from '@needlecase/core';
import Type from 'typebox';
import { invalid } from '../http/problem.js';
import type { Route } from '../http/route.js';

/** The instruments' arithmetic. Nothing is stored. */
export const instrumentRoutes = (): Route[] =>
  INSTRUMENTS.map(({ name, title, input, work }) => ({
    method: 'post',
    path: `/api/v1/instruments/${name}`,
    summary: `${title}: figures with their units in, the result with its working out; results are in m, m³/s, Pa, kg, s, °C`,
    body: input,
    reckons: true,
    answers: Type.Object({}, { title: `${input.replace('Input', '')}Result` }),
    handle: ({ body }) => {
      try {
        return { status: 200, body: work(body) };
      } catch (problem) {
        if (problem instanceof MeasureProblem) throw invalid(problem.problems);
        throw problem;
      }
    },
  }));
