import { GRADES } from '@needlecase/core';
import { fibresFor } from './fibres';

describe('the picture scale', () => {
  it('draws more fluff with each grade, none for clear, the same each time', () => {
    const counts = GRADES.map((grade) => fibresFor(grade).length);
    expect(counts[0]).toBe(0);
    expect(counts).toEqual([...counts].sort((a, b) => a - b));
    expect(new Set(counts).size).toBe(GRADES.length);
    expect(fibresFor(3)).toEqual(fibresFor(3));
  });

  it('keeps to the mesh', () => {
    const starts = fibresFor(4).map((path) =>
      path.slice(1, path.indexOf('c')).split(',').map(Number),
    );
    for (const [x, y] of starts) expect(Math.hypot(x!, y!)).toBeLessThanOrEqual(30);
  });
});
