import { describe, expect, it } from 'vitest';
import { loadsForADose, SCALE_A_DOSE } from './scale.js';

describe('scale', () => {
  // 2 mol of citric acid (192.12 g/mol) take up 3 mol of CaCO3 (100.087 g/mol): 100 g dissolve 78 g.
  it('is dissolved by citric acid in the proportion of the reaction', () => {
    expect(SCALE_A_DOSE).toBeCloseTo(78.1, 1);
  });

  it('takes half as many loads to a dose in water twice as hard', () => {
    expect(loadsForADose(200) / loadsForADose(400)).toBeCloseTo(2, 9);
    // Only heated water makes scale: 285 mg/L x 16 L x 5 % leave 0.228 g a load.
    expect(loadsForADose(285)).toBeCloseTo(78.1 / 0.228, 0);
  });
});
