import type { Machine } from '../../model/schemas.js';
import { groupedBy } from '../../units/grouped.js';

/**
 * So many machines are planned together, and so many looked over, at most: an answer stays below what a phone in a
 * cellar takes in.
 */
export const SECTION = { planned: 10, shown: 40 } as const;

/** Machines of a house that are told and planned together: all of them, or in a large house those of a place. */
export interface Section {
  /** What a person calls it; nothing where it is the whole house. */
  id: string;
  machines: Machine[];
}

/**
 * A house in sections: one where it has no more machines than are told together, else one for each place, and several
 * of about the same size for a place that has many. Nothing of one hangs on another: no set-up is shared.
 * @param most the number of machines in a section, at most
 */
export function sectionsOf(machines: readonly Machine[], most: number): Section[] {
  if (machines.length <= most) return [{ id: '', machines: [...machines] }];
  const at = groupedBy(machines, ({ place }) => place);
  const names = new Set<string>();
  const named = (place: string, number: number): string => {
    let name = number === 1 ? place : `${place} (${number})`;
    while (names.has(name)) name += ' ';
    names.add(name);
    return name;
  };
  return [...at].flatMap(([place, there]) => {
    const parts = Math.ceil(there.length / most);
    const from = (k: number) => Math.round((k * there.length) / parts);
    return Array.from({ length: parts }, (_, k) => ({
      id: named(place, k + 1),
      machines: there.slice(from(k), from(k + 1)),
    }));
  });
}

/**
 * The section that was asked for: of this name, or else that of the place that the name begins with; the first where
 * there is none any more. So one choice goes for what is told in larger sections and in smaller ones.
 */
export const sectionOf = (sections: readonly Section[], id = ''): Section =>
  sections.find((one) => one.id === id) ??
  sections.find((one) => one.id !== '' && id.startsWith(`${one.id} (`)) ??
  sections[0]!;

/** Which section of a large house is told, and which there are. */
export interface SectionTold {
  id: string;
  all: {
    id: string;
    /** Tasks that are due. */
    due?: number;
  }[];
}

/** The section in which a machine is; nothing where it is in none. */
export const sectionWith = (sections: readonly Section[], machineId: string): Section | undefined =>
  sections.find(({ machines }) => machines.some(({ id }) => id === machineId));
