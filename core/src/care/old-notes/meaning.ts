import type { EntryDraft, Machine } from '../../model/schemas.js';
import { KIND_NAMES } from '../../model/vocabulary.js';
import { stationsOf, tasksOf } from '../catalogue/lookup.js';

/* What a line of somebody's notes says was done, at which machine: by its words. */

/** Words of one thing, as people and regions have them. */
const SPELLINGS: readonly (readonly [RegExp, string])[] = [
  [/\bfaucets?\b/g, 'tap'],
  [/\bfluff\b|\bfuzz\b/g, 'lint'],
  [/\b(?:door )?(?:seal|boot|bellows)\b/g, 'gasket'],
  [/\bdrawer\b|\bsoap (?:box|tray)\b|\bdetergent (?:box|tray)\b/g, 'dispenser'],
  [/\b(?:lint|dryer) (?:trap|filter|sieve)\b/g, 'lint screen'],
  [/\b(?:coin|drain|debris|button) (?:trap|filter)\b|\bpump (?:trap|sieve)\b/g, 'pump filter'],
  [/\b(?:outside|outdoor) (?:flap|vent|cap)\b|\bvent (?:hood|cap)\b/g, 'hood outdoors'],
  [
    /\bvent(?:ing)?(?: (?:pipe|hose|line))?\b|\bducting\b|\bexhaust (?:pipe|duct|hose)\b/g,
    'duct run',
  ],
  [/\bcondenser(?: unit)?\b/g, 'heat exchanger'],
  [/\bwater (?:container|box|tank)\b/g, 'water tank'],
  [/\b(?:inlet|supply) hose\b|\bfill(?:ing)? hose\b/g, 'fill hose'],
  [/\b(?:waste|outlet) hose\b/g, 'drain hose'],
  [/\bdescal\w*|\blime ?scale\b|\blimescale\b|\bcitric acid\b/g, 'descale'],
  [
    /\bhot (?:empty )?(?:wash|cycle|run)\b|\b(?:maintenance|service|tub|drum) clean(?:ing)?\b|\bempty (?:hot )?(?:wash|cycle|run)\b/g,
    'hot drum clean empty',
  ],
  [/\bsensor(?:s|y)?\b/g, 'moisture sensor'],
  [/\bfine filter\b|\bsponge filter\b/g, 'fine screen'],
];
const FILLERS = new Set(
  'the a an of and or to at in on it its was were is with for from by we i again once had have been out off up over machine'.split(
    ' ',
  ),
);
const NEW = /\b(?:replac\w*|renew\w*|swapp?\w*|exchanged?|new)\b/i;
const LOOKED = /\b(?:look\w*|check\w*|inspect\w*|opened|was (?:clear|clean|fine|ok))\b/i;
const DID =
  /\b(?:clean\w*|wash\w*|brush\w*|wip\w*|descal\w*|vacuum\w*|hoover\w*|clear\w*|empt\w*|rins\w*|drain\w*|unblock\w*|flush\w*|level\w*|soak\w*|scrub\w*|serviced?|did|done)\b/i;
const LOADS = /^\s*(\d{1,2})?\s*(?:x\s*)?(?:loads?|washes|cycles)\b/i;
const CODE = /\b(?:code|error|fault)\s*:?\s*([A-Z]{0,3}[-\s]?\d{1,3}[A-Z]?)\b/i;

const stem = (word: string): string =>
  word.replace(/(?:ing|ed|es|e|s)$/, '').replace(/(.)\1$/, '$1');

const wordsOf = (text: string): Set<string> => {
  let plain = text.toLowerCase();
  for (const [from, to] of SPELLINGS) plain = plain.replace(from, to);
  return new Set(
    plain
      .split(/[^\p{L}\p{N}]+/u)
      .filter((word) => word.length > 1 && !FILLERS.has(word))
      .map(stem),
  );
};

/** Words of work that is done to nearly everything: alone they tell nothing. */
const COMMON = new Set(
  'clean wash brush wipe clear vacuum empty rinse drain look run test serviced hot'
    .split(' ')
    .map(stem),
);

/** How sure it is what was meant. */
export type Doubt = 'machine' | 'task';

/** What a line says, as an entry without its time. */
export interface Meaning {
  kind: EntryDraft['kind'];
  machineId?: string;
  task?: string;
  station?: string;
  count?: number;
  code?: string;
  doubts: Doubt[];
}

/** Two tasks whose words fit nearly alike are both told. */
const NEAR = 0.75;
/** Where it is tells less than the words of the task itself. */
const PLACE = 0.7;
/** Of a task's words so much is to be there. */
const ENOUGH = 0.33;

interface Known {
  machine: Machine;
  task: string;
  station: string;
  /** Words of where it is, and of the task. */
  place: ReadonlySet<string>;
  own: ReadonlySet<string>;
  /** Words of the task that tell more than that something was done. */
  telling: readonly string[];
}
interface Fit extends Known {
  score: number;
}

/** What lines of notes mean in a house. */
export class Meanings {
  readonly #known: readonly Known[];

  constructor(readonly machines: readonly Machine[]) {
    this.#known = machines.flatMap((machine) => {
      const names = new Map(stationsOf(machine).map(({ id, name }) => [id, name]));
      return tasksOf(machine).map(({ id: task, name, station }) => {
        const own = wordsOf(name);
        const telling = [...own].filter((word) => !COMMON.has(word));
        return { machine, task, station, place: wordsOf(names.get(station) ?? ''), own, telling };
      });
    });
  }

  /**
   * @param text what was written of it
   * @param machineText what was written of the machine; none where there is no such column
   */
  of(text: string, machineText?: string): Meaning {
    const named = machineText?.trim()
      ? machinesCalled(machineText, this.machines)
      : machinesIn(text, this.machines);
    const about = named.length ? named : this.machines;
    const loads = LOADS.exec(text);
    const code = CODE.exec(text);
    const found = loads || (code && !DID.test(text)) ? [] : this.#tasksIn(text, about);
    const best = found[0];
    const near = found.filter(({ score }) => score >= NEAR * best!.score);
    const machine = best?.machine ?? (about.length === 1 ? about[0] : undefined);
    const doubts: Doubt[] = [];
    if (machine === undefined || new Set(near.map((one) => one.machine)).size > 1) {
      doubts.push('machine');
    }
    if (new Set(near.map(({ task }) => task)).size > 1) doubts.push('task');
    const of = { ...(machine ? { machineId: machine.id } : {}), doubts };
    if (loads) return { kind: 'load', count: Math.min(50, Number(loads[1] ?? 1) || 1), ...of };
    if (code && !best) return { kind: 'code', code: code[1]!.toUpperCase(), ...of };
    if (!best) return { kind: 'note', ...of };
    if (NEW.test(text)) return { kind: 'replaced', station: best.station, ...of };
    const looked = LOOKED.test(text) && !DID.test(text);
    return { kind: looked ? 'opened' : 'done', task: best.task, ...of };
  }

  /** Tasks whose words are in a text, the best first. */
  #tasksIn(text: string, machines: readonly Machine[]): Fit[] {
    const words = wordsOf(text);
    return this.#known
      .flatMap((known): Fit[] => {
        if (!machines.includes(known.machine)) return [];
        const { place, own, telling } = known;
        const hits = [...place].filter((word) => words.has(word)).length;
        const said = [...own].filter((word) => words.has(word)).length;
        const share = Math.max(place.size ? (PLACE * hits) / place.size : 0, said / own.size);
        // Where it is counts more than what was done to it: half of all work is cleaning.
        if (share < ENOUGH || (hits === 0 && !telling.some((word) => words.has(word)))) return [];
        return [{ ...known, score: share + 0.3 * (said / own.size) + 0.1 * hits }];
      })
      .sort((a, b) => b.score - a.score);
  }
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/** Machines that a column means: by name, or by what they are. */
export function machinesCalled(text: string, machines: readonly Machine[]): Machine[] {
  const exact = machines.filter(({ name }) => same(name, text));
  return exact.length ? exact : machinesIn(text, machines);
}

function machinesIn(text: string, machines: readonly Machine[]): Machine[] {
  const plain = text.toLowerCase();
  const byName = machines.filter(({ name }) => plain.includes(name.toLowerCase()));
  if (byName.length) return byName;
  const washes = /\bwash(?:er|ing machine)\b/.test(plain);
  const dries = /\b(?:tumble )?dr[iy]ers?\b/.test(plain);
  if (washes === dries) {
    const words = wordsOf(text);
    const byPlace = machines.filter(
      ({ place }) => place && words.has([...wordsOf(place)][0] ?? ''),
    );
    return byPlace.length < machines.length ? byPlace : [];
  }
  return machines.filter(({ kind }) =>
    (washes ? /washer|tower/ : /dryer|tower/).test(KIND_NAMES[kind]),
  );
}
