import {
  readCode,
  wordsOf,
  type CaseRecord,
  type CodeSheet,
  type Entry,
  type Machine,
} from '@needlecase/core';
import type { Document } from '@needlecase/core/model/documents';
import MiniSearch from 'minisearch';
import { casesIn, codesOf, knowledgeOf, notesIn, papersIn, placesOf } from './knowledge';
import { INSTRUMENT_PLACES, PAGES } from './pages';
import type { Group, Indexed, Place } from './place';

/** What of the house can be found, beside what every house knows. */
export interface House {
  machines: readonly Machine[];
  sheets?: readonly CodeSheet[];
  cases?: readonly CaseRecord[];
  entries?: readonly Entry[];
  papers?: readonly Document[];
}

export interface FindIndex {
  /** Places for what was typed, the best first, those of one group together. */
  find(typed: string): Place[];
}

/** Nobody types more; a word of thousands of letters would be compared letter by letter. */
export const MOST_LETTERS = 200;
const MOST = 9;
/** Of one group, and of one symptom or task at several machines. */
const MOST_OF_GROUP = 3;
const MOST_OF_NAME = 2;
/** A letter or two with digits, digits alone: "E 18", "4E2". */
const LIKE_A_CODE = /^[\p{L}]{0,3}[ .:-]?\d{1,4}[\p{L}]?\d?$/u;

interface Doc {
  id: string;
  of: number;
  name: string;
  words: string;
  prose: string;
}

/** Places of one name, such as a task at every machine that has it: found as one. */
interface Known {
  places: Indexed[];
  /** All their words. */
  words: string;
  /** Those of the name. */
  name: ReadonlySet<string>;
}

/** Everything that can be gone to, found by whatever words. */
export function makeIndex(house: House): FindIndex {
  const { machines, sheets = [], cases = [], entries = [], papers = [] } = house;
  const known = byName([
    ...PAGES,
    ...INSTRUMENT_PLACES,
    ...machines.flatMap(placesOf),
    ...machines.flatMap((machine) => codesOf(sheets, machine)),
    ...knowledgeOf(machines),
    ...casesIn(cases, machines),
    ...notesIn(entries, machines),
    ...papersIn(papers, machines),
  ]);
  const search = new MiniSearch<Doc>({
    fields: ['name', 'words', 'prose'],
    storeFields: ['of'],
    tokenize: (text) => wordsOf(text),
    processTerm: (term) => term,
    searchOptions: {
      prefix: (term) => term.length > 2,
      fuzzy: (term) => (term.length > 6 ? 2 : term.length > 3 ? 1 : false),
      boost: { name: 3, words: 1.3, prose: 0.3 },
      weights: { prefix: 0.5, fuzzy: 0.3 },
      bm25: { k: 1.2, b: 0.6, d: 0.3 },
      boostDocument: (_id, _term, stored) => known[stored!['of'] as number]?.places[0]?.weight ?? 1,
    },
  });
  search.addAll(
    known.flatMap(({ places: [first], words }, of) => {
      const { name, prose = '', phrases } = first!;
      return (phrases ?? [name]).map((phrase, i) => ({
        ...{ id: `${of}/${i}`, of, name: phrase, words, prose },
      }));
    }),
  );
  return {
    find: (given) => {
      const typed = given.slice(0, MOST_LETTERS).trim();
      if (!typed) return [];
      const words = new Set(wordsOf(typed));
      const asked = words.size;
      const calledSo = ({ name }: Known) =>
        [...name].filter((word) => words.has(word)).length / Math.max(asked, name.size, 1);
      // Of nothing but "help" or "how" the way on is to say what is noticed.
      if (asked === 0) return PAGES.filter(({ id }) => HELP.includes(id)).map(shown);
      const best = new Map<number, number>();
      for (const { of, score, queryTerms } of search.search(typed)) {
        // What has every word of it comes before what has one of them often, and what is called so before all.
        const fits =
          score * (new Set(queryTerms).size / asked) ** 2 * (1 + calledSo(known[of as number]!));
        best.set(of as number, Math.max(best.get(of as number) ?? 0, fits));
      }
      const ranked = [...best]
        .sort((a, b) => b[1] - a[1])
        .slice(0, 3 * MOST)
        .flatMap(([of]) => nearest(known[of]!.places, typed));
      const danger = [...words].some((word) => DANGER.has(word)) ? DANGER_PAGE : [];
      return grouped([...danger, ...codesRead(typed, machines, sheets), ...ranked]);
    },
  };
}

/** Whoever types one of these is led to what to do first. */
const DANGER = new Set(
  wordsOf(
    'fire flames smoke burning sparks gas monoxide fumes shock tingle flood burst explosion electrocuted scorched',
  ),
);
const DANGER_PAGE = PAGES.filter(({ id }) => id === 'page/danger');
const HELP = ['page/trouble', 'page/danger', 'page/bench'];

const shown = ({ id, group, name, leads, url }: Place): Place => ({ id, group, name, leads, url });

/** Those of the machines that were named, or the first few. */
function nearest(places: readonly Indexed[], typed: string): Indexed[] {
  if (places.length === 1) return [...places];
  const asked = wordsOf(typed);
  const fits = ({ words = '', leads }: Indexed) => {
    const own = new Set(wordsOf(`${words} ${leads}`));
    return asked.filter((word) => own.has(word)).length;
  };
  return [...places].sort((a, b) => fits(b) - fits(a)).slice(0, MOST_OF_NAME);
}

function byName(places: readonly Indexed[]): Known[] {
  const known = new Map<string, Known>();
  for (const place of places) {
    const key = `${place.group}/${place.name}`;
    const one = known.get(key) ?? { places: [], words: '', name: new Set(wordsOf(place.name)) };
    one.places.push(place);
    one.words = `${one.words} ${place.words ?? ''}`;
    known.set(key, one);
  }
  return [...known.values()];
}

/** What was typed, read as a code: of the sheets, or as one that is on none. */
function codesRead(
  typed: string,
  machines: readonly Machine[],
  sheets: readonly CodeSheet[],
): Place[] {
  const known = machines.flatMap((machine): Place[] => {
    const reading = readCode(typed, sheets, machine);
    if (reading.is !== 'found') return [];
    const { code = typed, says } = reading.match.row;
    return [codePlace(machine, code, `${code}: ${says}`)];
  });
  if (known.length || !LIKE_A_CODE.test(typed) || !/\d/.test(typed)) return known.slice(0, 3);
  return machines
    .slice(0, 3)
    .map((machine) => codePlace(machine, typed, `“${typed}” on the display`));
}

const codePlace = (machine: Machine, code: string, name: string): Place => ({
  id: `${machine.id}/read/${code}`,
  group: 'trouble',
  name,
  leads: `code of the ${machine.name}: find the cause`,
  url: `/trouble?machine=${machine.id}&code=${encodeURIComponent(code)}`,
});

/** The best few, those of one group together, in the order of the best of each. */
function grouped(ranked: readonly Place[]): Place[] {
  const groups = new Map<Group, Place[]>();
  const told = new Set<string>();
  let count = 0;
  // One of each name first: the same at another machine comes after what else there is.
  const names = new Set<string>();
  const first = ranked.filter(({ name }) => !names.has(name) && names.add(name));
  const rest = ranked.filter((one) => !first.includes(one));
  for (const place of [...first.slice(0, MOST - 2), ...rest, ...first.slice(MOST - 2)]) {
    if (count >= MOST) break;
    const group = groups.get(place.group) ?? [];
    const key = `${place.name} ${place.url}`;
    if (group.length >= MOST_OF_GROUP || told.has(key)) continue;
    told.add(key);
    groups.set(place.group, [...group, shown(place)]);
    count++;
  }
  return [...groups.values()].flat();
}
