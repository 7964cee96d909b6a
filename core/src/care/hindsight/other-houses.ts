import { randomLcg, randomLogNormal, randomNormal } from 'd3-random';
import type { Household, Machine } from '../../model/schemas.js';
import { household, machine } from '../../model/testing.js';
import type { Grade } from '../../model/vocabulary.js';
import { dayOf, MS_PER_DAY, type Day } from '../../units/calendar.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { tasksOf } from '../catalogue/lookup.js';
import { GRADE_EDGES } from '../fouling/belief.js';
import { gather, type Fact, type History } from '../record/history.js';
import { Usage } from '../record/load-counts.js';
import { foretold, type Foretold } from './foretold.js';
import { insideOf, widthFor } from './judged.js';

/*
 * Houses that live by another law than the one that is believed in, for checks of what is foretold: rates that wander
 * and that follow the season, a person who is often a grade off, loads that nobody counted, openings when it suits.
 */

export interface OtherHouse {
  household: Household;
  machine: Machine;
  history: History;
  now: number;
}

const YEARS = 3;
const HALF_YEAR = 182.5 * MS_PER_DAY;
const FROM = Date.parse('2023-01-02T08:00:00Z');
/** How far a rate wanders from one clean to the next, and with the season: of ln r. */
const WANDERS = 0.18;
const SEASON = 0.25;
/** So often somebody grades one off; so many loads are not counted. */
const ONE_OFF = 0.2;
const MISSED = 0.25;

/** A house with one machine and three years of record. @param random 0 to 1 */
export function otherHouse(random: () => number): OtherHouse {
  const kinds = ['front-load-washer', 'vented-dryer', 'condenser-dryer'] as const;
  const one = machine(kinds[Math.floor(3 * random())]!, { loadsPerWeek: 2 + 6 * random() });
  const house = household();
  const now = FROM + YEARS * 365 * MS_PER_DAY;
  const facts: Fact[] = [];
  const perDay = one.loadsPerWeek / 7;
  const counted: number[] = [];
  const washed: number[] = [];
  for (let at = FROM; at < now; at += MS_PER_DAY) {
    if (random() > perDay / Math.ceil(perDay)) continue;
    for (let i = 0; i < Math.ceil(perDay); i++) {
      washed.push(at + 3_600_000);
      if (random() > MISSED) counted.push(at + 3_600_000);
    }
  }
  const isCareful = random();
  for (const task of tasksOf(one)) {
    if (task.ungraded || task.habit || task.driver !== 'loads') continue;
    const interval = inDriver(task.intervals.steady, 'loads');
    if (!(interval > 2)) continue;
    const step = randomNormal.source(random)(0, WANDERS);
    const normal = randomNormal.source(random)(0, 0.55);
    // Its own rate lies about as far from what is usual as houses do, with a longer tail.
    let ln = Math.log(0.6 / interval) + normal() + 0.35 * (random() - 0.5);
    let since = 0;
    const waits = randomLogNormal.source(random)(Math.log(0.75 + 0.4 * isCareful), 0.35);
    let wait = waits() * interval;
    for (let i = 0; i < washed.length; i++) {
      since++;
      if (since < wait) continue;
      const at = washed[i]! + 1000;
      const season = SEASON * Math.sin((2 * Math.PI * at) / (365 * MS_PER_DAY));
      const fouling = since * Math.exp(ln + season);
      facts.push({
        ...{ entryId: `${task.id}-${i}`, kind: 'done', at, day: dayOf(at, house.zone) },
        ...{ task: task.id, grade: graded(fouling, random) },
      });
      ln += step();
      since = 0;
      wait = waits() * interval;
    }
  }
  for (const at of counted) {
    facts.push({ entryId: `load-${at}`, kind: 'load', at, day: dayOf(at, house.zone), count: 1 });
  }
  const { taps, ...past } = gather(facts);
  return {
    household: house,
    machine: one,
    history: { ...past, usage: new Usage(taps, one.loadsPerWeek) },
    now,
  };
}

/** What somebody says of it: often one grade off. */
function graded(fouling: number, random: () => number): Grade {
  const edge = GRADE_EDGES.findIndex((most) => fouling < most);
  const right = edge < 0 ? 4 : edge;
  const off = random() < ONE_OFF ? (random() < 0.5 ? -1 : 1) : 0;
  return Math.min(4, Math.max(0, right + off)) as Grade;
}

/**
 * Share of finds in their eight-in-ten range in so many houses, of the last half of their record: before, and with the
 * width that all finds up to each half-year give.
 */
export function otherHouses(count: number): { before: number; after: number; openings: number } {
  let [before, after, openings] = [0, 0, 0];
  for (let i = 0; i < count; i++) {
    const house = otherHouse(randomLcg((i + 0.5) / count));
    const known = new Map<number, Foretold[]>();
    const at = (width: number): Foretold[] => {
      const { machine, history, household, now } = house;
      const found = known.get(width) ?? foretold(machine, history, household, now, width);
      known.set(width, found);
      return found;
    };
    for (let half = YEARS; half < 2 * YEARS; half++) {
      const [from, to] = [half, half + 1].map((n) => dayOf(FROM + n * HALF_YEAR, 'UTC')) as [
        Day,
        Day,
      ];
      const past = (width: number) => at(width).filter(({ day }) => day < from);
      const next = (width: number) => at(width).filter(({ day }) => day >= from && day < to);
      const width = widthFor((one) => share(past(one)), past(1).length);
      before += sum(next(1));
      after += sum(next(width));
      openings += next(1).length;
    }
  }
  return { before: before / openings, after: after / openings, openings };
}

const sum = (all: readonly Foretold[]): number =>
  all.reduce((total, found) => total + insideOf(found), 0);
const share = (all: readonly Foretold[]): number => sum(all) / Math.max(1, all.length);
