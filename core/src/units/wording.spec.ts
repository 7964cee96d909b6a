import { describe, expect, it } from 'vitest';
import { CM, figure, inUnits, PER_MINUTE } from './wording.js';

describe('figures within sentences', () => {
  it('are said in the units of whoever reads', () => {
    const sentence = `${figure(0.25, 'length', CM)} deep, ${figure(12 / 60_000, 'flow', PER_MINUTE)}.`;
    expect(inUnits(sentence, 'metric')).toBe('25 cm deep, 12 L/min.');
    expect(inUnits(sentence, 'us')).toBe('9.84 in deep, 3.17 gal/min.');
  });

  it('are said in what the system shows where nothing else is asked for', () => {
    expect(inUnits(figure(3, 'mass'), 'us')).toBe('6.61 lb');
    expect(inUnits(figure(20, 'temperature'), 'us')).toBe('68 °F');
    expect(inUnits(figure(-0.5, 'temperature'), 'metric')).toBe('-0.5 °C');
  });

  it('are told in as many digits as asked for', () => {
    const about = figure(0.0178, 'volume', { digits: 2 });
    expect([inUnits(about, 'metric'), inUnits(about, 'us')]).toEqual(['18 L', '4.7 gal']);
  });

  it('leave all else as it was, however deep', () => {
    const curve = new Float64Array([1, 2]);
    const result = {
      flow: 0.05,
      curve,
      none: undefined,
      empty: null,
      working: [{ what: 'Load', how: `${figure(1, 'mass')} of cloth` }],
    };
    const read = inUnits(result, 'metric');
    expect(read).toEqual({ ...result, working: [{ what: 'Load', how: '1 kg of cloth' }] });
    expect(read.curve).toBe(curve);
    expect(result.working[0]!.how).not.toBe('1 kg of cloth');
  });
});
