import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Machine } from '../../model/schemas.js';
import { sectionOf, sectionsOf, sectionWith } from './sections.js';

const machine = (id: number, place: string): Machine =>
  ({ id: String(id), name: `M ${id}`, place, kind: 'vented-dryer' }) as Machine;
const houses = fc.array(fc.constantFrom('Cellar', 'Cellar (2)', 'Attic', 'Flat ', 'Yard'), {
  maxLength: 70,
});

describe('a house in sections', () => {
  it('has each machine in one of them, none above the most, and each of one place', () => {
    fc.assert(
      fc.property(houses, fc.integer({ min: 1, max: 20 }), (places, most) => {
        const machines = places.map((place, i) => machine(i, place));
        const sections = sectionsOf(machines, most);
        const told = sections.flatMap((one) => one.machines.map(({ id }) => id));
        expect(told.toSorted()).toEqual(machines.map(({ id }) => id).toSorted());
        expect(new Set(sections.map(({ id }) => id)).size).toBe(sections.length);
        expect(sections.every((one) => one.machines.length <= most)).toBe(true);
        if (sections.length === 1) return;
        for (const { machines: there } of sections) {
          expect(there.length).toBeGreaterThan(0);
          expect(new Set(there.map(({ place }) => place)).size).toBe(1);
        }
        for (const { id } of machines) expect(sectionWith(sections, id)).toBeDefined();
      }),
    );
  });

  it('of no more machines than are told together is one, whatever places there are', () => {
    const machines = ['Cellar', 'Attic', 'Cellar'].map((place, i) => machine(i, place));
    expect(sectionsOf(machines, 3)).toEqual([{ id: '', machines }]);
    expect(sectionsOf([], 3)).toEqual([{ id: '', machines: [] }]);
  });

  it('is chosen by its name, or by the place that the name begins with, or is the first', () => {
    const machines = Array.from({ length: 9 }, (_, i) => machine(i, i < 4 ? 'Attic' : 'Cellar'));
    const small = sectionsOf(machines, 3);
    expect(small.map(({ id }) => id)).toEqual(['Attic', 'Attic (2)', 'Cellar', 'Cellar (2)']);
    const large = sectionsOf(machines, 6);
    expect(large.map(({ id }) => id)).toEqual(['Attic', 'Cellar']);
    expect(sectionOf(small, 'Cellar (2)').machines.map(({ id }) => id)).toEqual(['7', '8']);
    expect(sectionOf(large, 'Cellar (2)').id).toBe('Cellar');
    expect(sectionOf(large, 'Yard').id).toBe('Attic');
    expect(sectionOf(large, undefined).id).toBe('Attic');
  });
});
