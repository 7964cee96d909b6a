import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { liningFor } from './lining-for.js';
import { USUAL_BLOWER, ventRun, type VentRun } from './vent-run.js';

const RUN: VentRun = {
  pieces: [
    { is: 'hose', length: 1.5, stretched: true },
    { is: 'straight', length: 4, direction: 'up' },
    { is: 'elbow', angle: 90, radius: '4-in' },
    { is: 'hood', state: 'free', screened: false },
  ],
  material: 'smooth-metal',
  diameter: 0.1016,
  lining: 0.002,
  temperature: 60,
  blower: USUAL_BLOWER,
};

describe('the lint that explains a measured flow', () => {
  it('is the lining that gives just that flow', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.003, max: 0.04, noNaN: true }), (lining) => {
        const { flow } = ventRun({ ...RUN, lining });
        expect(liningFor(RUN, flow)).toBeCloseTo(lining, 8);
      }),
    );
  });

  it('is none where as much air was measured as the run gives, or more', () => {
    const { flow } = ventRun(RUN);
    expect(liningFor(RUN, flow)).toBeUndefined();
    expect(liningFor(RUN, flow * 1.2)).toBeUndefined();
  });

  it('is none where no lint would do', () => {
    expect(liningFor(RUN, 1e-6)).toBeUndefined();
  });
});
