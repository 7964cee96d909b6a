import { DISPUTES } from '../care/catalogue/data/disputes.js';
import { FEATURE_QUESTIONS, HABIT_QUESTIONS } from '../care/catalogue/data/features.js';
import { FIGURES } from '../care/catalogue/data/figures.js';
import { LOAD_HABITS } from '../care/catalogue/data/habits.js';
import { HAZARDS } from '../care/catalogue/data/hazards.js';
import { LOAD_CARE } from '../care/catalogue/data/load-care.js';
import { PROCEDURES } from '../care/catalogue/data/procedures/index.js';
import { SCHOOL_TEXTS } from '../care/catalogue/data/schools.js';
import { SETUPS } from '../care/catalogue/data/setups.js';
import { STATIONS } from '../care/catalogue/data/stations.js';
import { SUPPLIES } from '../care/catalogue/data/supplies.js';
import { TASKS } from '../care/catalogue/data/tasks.js';
import { WAY_NAMES } from '../care/catalogue/data/ways.js';
import { FORBIDDEN } from '../chemistry/forbidden.js';
import { PRODUCTS } from '../chemistry/products.js';
import { RECIPES } from '../chemistry/recipes.js';
import { QUANTITIES } from '../model/quantities.js';
import { KIND_NAMES } from '../model/vocabulary.js';
import { CODE_CLASS_LIST } from '../trouble/codes/classes.js';
import { CAUSES } from '../trouble/data/causes.js';
import { CHECKS } from '../trouble/data/checks.js';
import { CIRCUMSTANCES_SAID } from '../trouble/data/circumstances.js';
import { DOOR_RUNGS } from '../trouble/data/door-ladder.js';
import { STOP_RULES } from '../trouble/data/stops.js';
import { SYMPTOMS } from '../trouble/data/symptoms.js';

/** A text that a person can meet, and where: `PROCEDURES/duct-run/brush/do`. */
export interface PlacedText {
  at: string;
  text: string;
}

/** The tables of knowledge, by the names under which their texts are listed. */
export const KNOWLEDGE: Readonly<Record<string, object>> = {
  CAUSES,
  CHECKS,
  CIRCUMSTANCES_SAID,
  CODE_CLASS_LIST,
  DISPUTES,
  DOOR_RUNGS,
  FEATURE_QUESTIONS,
  FIGURES,
  FORBIDDEN,
  HABIT_QUESTIONS,
  HAZARDS,
  KIND_NAMES,
  LOAD_CARE,
  LOAD_HABITS,
  PROCEDURES,
  PRODUCTS,
  QUANTITIES,
  RECIPES,
  SCHOOL_TEXTS,
  SETUPS,
  STATIONS,
  STOP_RULES,
  SUPPLIES,
  SYMPTOMS,
  TASKS,
  WAY_NAMES,
};

/** What is written for whoever checks the knowledge, and is not shown. */
const UNSEEN = new Set(['basis', 'source']);

/** Every text of the knowledge, as it is spoken now (`regions/spoken.ts`). */
export function* everyText(of: unknown = KNOWLEDGE, at = ''): Generator<PlacedText> {
  if (typeof of === 'string') {
    if (of.includes(' ') || /^\p{Lu}/u.test(of)) yield { at, text: of };
    return;
  }
  if (of === null || typeof of !== 'object') return;
  for (const [key, part] of Object.entries(of)) {
    if (UNSEEN.has(key)) continue;
    const { id, task } = (part ?? {}) as { id?: string; task?: string };
    yield* everyText(part, `${at}${at ? '/' : ''}${id ?? task ?? key}`);
  }
}

/** Words of a sentence, figures among them; what stands in brackets is another way to say it. */
export const wordsOf = (text: string): string[] =>
  text
    .replaceAll(/\([^)]*\)/g, ' ')
    .split(/\s+/)
    .filter((word) => /[\p{L}\d]/u.test(word));
