import { FIGURES } from '@needlecase/core';
import { FIGURE_SHAPES } from './figures';
import { arrow, turn } from './shapes';

describe('figures', () => {
  it('are drawn for every name, inside their sheet of 240 by 160', () => {
    expect(Object.keys(FIGURE_SHAPES).sort()).toEqual(Object.keys(FIGURES).sort());
    for (const [id, shapes] of Object.entries(FIGURE_SHAPES)) {
      expect(shapes.length, id).toBeGreaterThan(2);
      for (const { d } of shapes) {
        expect(d, id).not.toMatch(/NaN|undefined/);
        const starts = [...d.matchAll(/M(-?[\d.]+),(-?[\d.]+)/g)];
        for (const [, x, y] of starts) {
          expect(Number(x) >= 0 && Number(x) <= 240, `${id} ${x}`).toBe(true);
          expect(Number(y) >= 0 && Number(y) <= 160, `${id} ${y}`).toBe(true);
        }
      }
    }
  });

  it('turn and point the way they say', () => {
    expect(arrow(0, 0, 10, 0)).toMatch(/^M0,0L10,0/);
    // Clockwise on the screen is the sweep 1, anticlockwise 0.
    expect(turn(50, 50, 20, -90, 0)).toContain('A20,20 0 0,1');
    expect(turn(50, 50, 20, 0, -90)).toContain('A20,20 0 0,0');
  });
});
