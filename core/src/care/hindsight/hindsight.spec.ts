import { randomLcg } from 'd3-random';
import { describe, expect, it } from 'vitest';
import { MS_PER_DAY } from '../../units/days.js';
import { Openings } from '../record/openings.js';
import { RateBelief } from '../fouling/belief.js';
import { foretold, type Foretold } from './foretold.js';
import { hindsight } from './hindsight.js';
import { insideOf, judge, widthFor } from './judged.js';
import { otherHouse, otherHouses } from './other-houses.js';

const one = (grade: Foretold['grade'], chances: readonly number[]): Foretold => ({
  ...{ machineId: 'm', task: 't', line: 'air', day: '2026-01-01', grade, chances },
});

describe('what was foretold', () => {
  it('lies in its range by the part of its bracket that does', () => {
    // Of a grade that has all of the chance, eight tenths lie between one and nine in ten.
    expect(insideOf(one(2, [0, 0, 1, 0, 0]))).toBeCloseTo(0.8, 12);
    expect(insideOf(one(0, [0.05, 0.95, 0, 0, 0]))).toBe(0);
    expect(insideOf(one(1, [0.05, 0.95, 0, 0, 0]))).toBeCloseTo(0.8 / 0.95, 12);
    expect(insideOf(one(4, [0.2, 0.3, 0.3, 0.1, 0.1]))).toBe(0);
    expect(insideOf(one(3, [0.2, 0.3, 0.3, 0.1, 0.1]))).toBeCloseTo(1, 12);
  });

  it('is eight in ten inside, whatever the law of the grades, where finds come by it', () => {
    const random = randomLcg(0.3);
    const all = Array.from({ length: 20_000 }, () => {
      const parts = Array.from({ length: 5 }, () => random() ** 3);
      const whole = parts.reduce((a, b) => a + b, 0);
      const chances = parts.map((part) => part / whole);
      let [u, grade] = [random(), 0];
      while (grade < 4 && u > chances[grade]!) u -= chances[grade++]!;
      return one(grade as Foretold['grade'], chances);
    });
    const judged = judge(all)!;
    expect(judged.inside).toBeCloseTo(0.8, 2);
    expect(judged.brier).toBeLessThan(judged.brierOfOne);
    for (const { said, seen, count } of judged.curve)
      expect(Math.abs(said - seen)).toBeLessThan(count > 500 ? 0.03 : 0.15);
  });

  it('has the Brier score of a worked example', () => {
    // Chances of 0.9, 0.3 and 0.6 where it came, came not, came not: (0.01 + 0.09 + 0.36) / 3. By hand.
    const rest = (chance: number) => [1 - chance, 0, 0, 0, chance];
    const judged = judge([one(4, rest(0.9)), one(0, rest(0.3)), one(0, rest(0.6))])!;
    expect(judged.brier).toBeCloseTo(0.46 / 3, 12);
    expect(judged.brierOfOne).toBeCloseTo((1 / 3) * (2 / 3), 12);
  });

  it('rests on entries before it alone', () => {
    const { household, machine, history, now } = otherHouse(randomLcg(0.4));
    const all = foretold(machine, history, household, now);
    const middle = now - 540 * MS_PER_DAY;
    const day = new Date(middle).toISOString().slice(0, 10);
    const early = { ...history, openings: new Map(history.openings) };
    for (const [task, openings] of history.openings) {
      const list = openings.list.filter(({ at }) => at < middle);
      early.openings.set(task, new Openings(list));
    }
    const before = foretold(machine, early, household, middle);
    expect(before.length).toBeGreaterThan(20);
    expect(all.filter((found) => found.day < day)).toEqual(
      before.filter((found) => found.day < day),
    );
  });
});

describe('a household’s own width', () => {
  it('is 1 where nothing was seen or ranges held, and is drawn towards it where little was', () => {
    expect(widthFor(() => 0.85, 1000)).toBe(1);
    const narrow = (width: number) => Math.min(1, 0.5 + 0.3 * Math.log(width));
    expect(widthFor(narrow, 0)).toBe(1);
    const [little, much] = [widthFor(narrow, 10), widthFor(narrow, 10_000)];
    expect(little).toBeGreaterThan(1);
    expect(little).toBeLessThan(much);
    expect(narrow(much)).toBeCloseTo(0.8, 1);
  });

  it('leaves the due point without evidence where it is, and takes what was seen for less', () => {
    for (const widened of [1, 1.5, 2.5]) {
      const belief = new RateBelief(40, 0.1, undefined, widened);
      expect(belief.dueAt() / 40).toBeCloseTo(1, 2);
      expect(belief.chanceAbove(0.9, 40)).toBeCloseTo(0.1, 2);
      const chances = belief.gradeChances(40);
      expect(chances.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    }
    const [plain, wide] = [1, 2].map((widened) => {
      const belief = new RateBelief(40, 0.1, undefined, widened);
      for (let i = 0; i < 12; i++) belief.observe(1, 40);
      return belief;
    });
    const width = (belief: RateBelief) => {
      const { low, high } = belief.foulingAt(40);
      return Math.log(high / low);
    };
    expect(width(wide!)).toBeGreaterThan(2 * width(plain!));
    // Less sure, it is due sooner, and never beyond what it was.
    expect(wide!.dueAt()).toBeLessThan(plain!.dueAt());
    expect(wide!.dueAtLeast()).toBeLessThanOrEqual(wide!.dueAt());
    expect(wide!.leastDueAt()).toBeLessThanOrEqual(wide!.dueAt());
    const due = wide!.dueAt();
    expect(wide!.chanceAbove(0.9, due)).toBeCloseTo(0.1, 1);
  });

  it('brings houses of another law from two in three to eight in ten, in what comes after it was set', () => {
    const { before, after } = otherHouses(60);
    expect(before).toBeLessThan(0.72);
    expect(Math.abs(after - 0.8)).toBeLessThan(0.05);
  }, 60_000);

  it('is nothing in a house where nothing was opened', () => {
    const { household, machine, history, now } = otherHouse(randomLcg(0.4));
    const house = {
      household,
      machines: [machine],
      histories: [{ ...history, openings: new Map() }],
      now,
    };
    expect(hindsight(house)).toEqual({ widened: 1, lines: {} });
  });
});
