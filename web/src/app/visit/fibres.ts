import type { Grade } from '@needlecase/core';

const COUNTS: Record<Grade, number> = { 0: 0, 1: 5, 2: 16, 3: 38, 4: 90 };
const GOLDEN = 2.399963;

/**
 * Drawn fluff on a mesh of radius 30, more with each grade; the same each time. Tufts sit on a
 * sunflower spiral so that they cover evenly.
 */
export function fibresFor(grade: Grade): string[] {
  const count = COUNTS[grade];
  return Array.from({ length: count }, (_, i) => {
    const angle = i * GOLDEN;
    const radius = 27 * Math.sqrt((i + 0.5) / count);
    const [x, y] = [radius * Math.cos(angle), radius * Math.sin(angle)];
    const turn = i * 1.7;
    const bend = (k: number) => 6 * Math.sin(turn + k);
    const points = [bend(0), bend(1), bend(2.4), bend(3.1), bend(4.4), bend(5.6)];
    return `M${fix(x)},${fix(y)}c${points.map(fix).join(',')}`;
  });
}

const fix = (n: number): number => Math.round(n * 10) / 10;
