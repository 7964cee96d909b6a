import type { MachineKind } from '../model/vocabulary.js';
import { isWasher } from '../model/vocabulary.js';
import type { Features } from '../model/schemas.js';
import { Diagnosis } from '../trouble/diagnosis/diagnosis.js';
import { drawSigns, type DrawnTrouble } from '../trouble/diagnosis/simulate.js';
import type { Situation } from '../trouble/diagnosis/priors.js';
import { SUMP } from '../world/water.js';
import { startWorld, type World } from '../world/world.js';
import { between, chancesFor, oneOf } from './chance.js';
import { levelById, type PracticeLevel, type LevelId } from './levels.js';
import { physicsOf, type Physics } from './physics.js';

/** A machine to practise on: one of the person's own, or one that is nobody's. */
export interface PracticeMachine {
  name: string;
  kind: MachineKind;
  features: Features;
}

/** A case and all that was done in it: the same again gives the same case. */
export interface PracticeGame {
  /** 32 bits. */
  seed: number;
  level: LevelId;
  machine: PracticeMachine;
  /** What the record says of the machine's own state, fouling by task. */
  fouling?: Readonly<Record<string, number>>;
  /** Ids of what was done, in turn. */
  acts: readonly string[];
}

/** What lies hidden in a machine. */
export interface PracticeCase {
  level: PracticeLevel;
  machine: PracticeMachine;
  seed: number;
  /** What can be known of it before any look: as the trouble engine takes it. */
  trouble: Diagnosis;
  hidden: DrawnTrouble;
  physics: Physics;
  /** The same machine with nothing wrong: what it is held against. */
  clean: Physics;
  start: World;
}

/** Draws until one fits: what is wrong is what shows. */
const MOST_DRAWS = 2000;
/** Litres of a drum that does not drain, °C of its water; share of the cases that come hot from a programme. */
const STANDING = [12, 36] as const;
const WARM = [22, 36] as const;
const HOT = [46, 58] as const;
const HOT_SHARE = 0.2;
/** Fouling as a misleading record has it: cleaned lately, and overdue. */
const MISLED = { clean: 0.1, overdue: 1.1 } as const;

const TROUBLES = new Map<string, Diagnosis>();
const MOST_TROUBLES = 40;

/** Networks take a while to build; the same situation has the same one. */
function troubleOf(situation: Situation): Diagnosis {
  const key = JSON.stringify(situation);
  const known = TROUBLES.get(key);
  if (known) return known;
  const trouble = new Diagnosis(situation);
  if (TROUBLES.size >= MOST_TROUBLES) TROUBLES.clear();
  TROUBLES.set(key, trouble);
  return trouble;
}

/**
 * Draws a case: the same seed, level and machine give the same.
 * @throws RangeError where a machine of this kind cannot have such a trouble
 */
export function drawCase(game: Omit<PracticeGame, 'acts'>): PracticeCase {
  const { seed, machine } = game;
  const level = levelById(game.level);
  const { kind, features } = machine;
  const plain = troubleOf({ kind, features, ...(game.fouling ? { fouling: game.fouling } : {}) });
  const hidden = drawHidden(plain, level, chancesFor(seed, 'fault'));
  const trouble = level.misleads ? troubleOf(misled(plain, hidden)) : plain;
  const causes = hidden.present.map((i) => trouble.causes[i]!.id);
  const water = chancesFor(seed, 'water');
  const standing = isWasher(kind) && hidden.shows.get('wont-drain') === true;
  const litres = standing ? SUMP + between(water, STANDING) : SUMP;
  const hot = level.id !== 'first' && water() < HOT_SHARE;
  return {
    level,
    machine,
    seed,
    trouble,
    hidden,
    physics: physicsOf(machine, causes, hidden.shows, seed),
    clean: physicsOf(machine, [], new Map(), seed),
    start: startWorld(litres, between(water, hot ? HOT : WARM)),
  };
}

/**
 * What a machine shows while only some of what was wrong is left: what none of that makes is over.
 * @param left a number of causes, by index
 */
export function showsNow(
  { trouble, hidden }: Pick<PracticeCase, 'trouble' | 'hidden'>,
  left: readonly number[],
): ReadonlyMap<string, boolean> {
  if (left.length === hidden.wrong.length) return hidden.shows;
  const marked = trouble.causes.map((_, i) => left.includes(i));
  return new Map(
    [...hidden.shows].map(([id, shows]) => [id, shows && trouble.tellsOf(id, marked)]),
  );
}

/** How a machine is in figures while only some of what was wrong is left. @param left a number of causes, by index */
export function physicsNow(game: PracticeCase, left: readonly number[]): Physics {
  if (left.length === game.hidden.wrong.length) return game.physics;
  const causes = left.map((i) => game.trouble.causes[i]!.id);
  return physicsOf(game.machine, causes, showsNow(game, left), game.seed);
}

/** Whether a level can be played on a kind of machine. */
export function isPlayable(level: PracticeLevel, { kind, features }: PracticeMachine): boolean {
  const { causes } = troubleOf({ kind, features });
  return !level.causes || causes.some(({ id }) => level.causes!.includes(id));
}

function drawHidden(trouble: Diagnosis, level: PracticeLevel, random: () => number): DrawnTrouble {
  const able = trouble.causes.map((_, i) => i).filter((i) => fits(trouble, i, level));
  const { causes } = trouble.network;
  const weight = (i: number) => causes[i]!.prior;
  for (let draw = 0; draw < MOST_DRAWS && able.length > 0; draw++) {
    const faults = oneOf(random, [0, 1, 2] as const, (n) => level.faults[n]);
    const present: number[] = [];
    while (present.length < Math.min(faults, able.length)) {
      const left = able.filter((i) => !present.includes(i));
      present.push(oneOf(random, left, weight));
    }
    present.sort((a, b) => a - b);
    const drawn = drawSigns(trouble, present, random);
    const shown = Object.keys(drawn.reported).length > 0 && drawn.wrong.length === present.length;
    // Water does not stand by chance.
    const marked = trouble.causes.map((_, i) => present.includes(i));
    const stands = drawn.shows.get('wont-drain') && !trouble.tellsOf('wont-drain', marked);
    if (shown && !stands && (!level.symptom || drawn.shows.get(level.symptom))) return drawn;
  }
  throw new RangeError(`A machine of this kind has no trouble for "${level.name}".`);
}

const fits = ({ causes }: Diagnosis, i: number, level: PracticeLevel): boolean =>
  !level.causes || level.causes.includes(causes[i]!.id);

/** The record turned over: what is wrong seems clean, and something else overdue. */
function misled(trouble: Diagnosis, { present }: DrawnTrouble): Situation {
  const tasks = trouble.causes.map(({ fouling }) => fouling);
  const wrong = present.flatMap((i) => tasks[i] ?? []);
  const others = [...new Set(tasks.flatMap((task) => task ?? []))].filter(
    (task) => !wrong.includes(task),
  );
  return {
    ...trouble.situation,
    fouling: Object.fromEntries([
      ...others.map((task) => [task, MISLED.overdue] as const),
      ...wrong.map((task) => [task, MISLED.clean] as const),
    ]),
  };
}
