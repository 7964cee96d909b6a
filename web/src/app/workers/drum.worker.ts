import { dryLoad, type DrumLoad, type DrumResult } from '@needlecase/core';

/** What is asked of the worker, and what it answers. */
export interface DrumAsked {
  id: number;
  loads: DrumLoad[];
}
export interface DrumAnswered {
  id: number;
  results: DrumResult[];
  problem?: string;
}

addEventListener('message', ({ data }: MessageEvent<DrumAsked>) => {
  const { id, loads } = data;
  try {
    postMessage({ id, results: loads.map(dryLoad) } satisfies DrumAnswered);
  } catch (problem) {
    const said = problem instanceof Error ? problem.message : String(problem);
    postMessage({ id, results: [], problem: said } satisfies DrumAnswered);
  }
});
