import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Household, Machine } from '../../model/schemas.js';
import type { Grade, SchoolId } from '../../model/vocabulary.js';
import { dayOf, earliest, MS_PER_DAY, plusDays, plusMonths } from '../../units/calendar.js';
import { taskById } from '../catalogue/lookup.js';
import { TASKS } from '../catalogue/data/tasks.js';
import { due, type Due } from './due.js';
import { why } from './explain.js';
import { RateBelief } from '../fouling/belief.js';
import { inDriver } from '../catalogue/interval-figure.js';
import { Openings, type Opening } from '../record/openings.js';
import { reckoned } from './rules.js';
import { household, machine } from '../../model/testing.js';
import { Usage, type LoadCount } from '../record/load-counts.js';

const ZONE = 'Europe/Vienna';
const NOW = Date.parse('2026-06-15T10:00:00Z');
const TODAY = dayOf(NOW, ZONE);

interface Case {
  task?: string;
  openings?: [daysAgo: number, grade?: Grade, cleaned?: boolean][];
  taps?: LoadCount[];
  perWeek?: number;
  house?: Partial<Household>;
  machine?: Partial<Machine>;
  now?: number;
}

function opening(task: string, daysAgo: number, grade?: Grade, cleaned = true, now = NOW): Opening {
  const at = now - daysAgo * MS_PER_DAY;
  return {
    entryId: `${task}-${daysAgo}`,
    at,
    day: dayOf(at, ZONE),
    task,
    cleaned,
    ...(grade === undefined ? {} : { grade }),
  };
}

function dueOf({
  task = 'pump-filter',
  openings = [],
  taps = [],
  perWeek = 5,
  ...rest
}: Case): Due {
  const subject = taskById(task);
  return due({
    task: subject,
    machine: machine(subject.kinds[0]!, rest.machine),
    household: household({ zone: ZONE, ...rest.house }),
    openings: new Openings(
      openings.map(([daysAgo, grade, cleaned]) =>
        opening(task, daysAgo, grade, cleaned ?? true, rest.now),
      ),
    ),
    usage: new Usage(taps, perWeek),
    now: rest.now ?? NOW,
  });
}

/** One load a day for so many days before now. */
const daily = (days: number): LoadCount[] =>
  Array.from({ length: days }, (_, i) => ({ at: NOW - (i + 0.5) * MS_PER_DAY, count: 1 }));

describe('due', () => {
  it('is not known, and not overdue, for a station that was never opened', () => {
    const never = dueOf({ openings: [] });
    expect(never.status).toBe('unknown');
    expect(never.on).toBeUndefined();
  });

  it.each(
    TASKS.flatMap((task) =>
      (['often', 'steady', 'stretch', 'count'] as SchoolId[]).map((school) => ({ task, school })),
    ),
  )(
    'without evidence is due exactly at the interval of the school: $task.id, $school',
    ({ task, school }) => {
      const house = { school, hardness: 240 };
      const interval = reckoned(task.intervals[school], house);
      const bare = task.speeds['hard-water'] ? { multipliers: { 'hard-water': 1 } } : {};
      const one = dueOf({
        task: task.id,
        openings: [[3]],
        perWeek: 5,
        house: { ...house, ...bare },
      });
      expect(one.learned).toBe(inDriver(interval, task.driver));
      if (task.habit) {
        expect(one).toMatchObject({ status: 'habit' });
        expect(one.on).toBeUndefined();
        return;
      }
      if (interval.sign) {
        expect(one.on).toBeUndefined();
        expect(one.status).toBe('fine');
        return;
      }
      const last = plusDays(TODAY, -3);
      const loads = one.inForce.loads;
      const bounds = [
        ...(interval.months ? [plusMonths(last, interval.months)] : []),
        ...(interval.days ? [plusDays(last, interval.days)] : []),
        ...(loads ? [plusDays(last, Math.ceil((loads * 7) / 5 - 1e-9))] : []),
        ...(task.cap?.months ? [plusMonths(last, task.cap.months)] : []),
      ];
      expect(one.on).toBe(earliest(...bounds));
      if (interval.loads !== undefined) expect(loads).toBe(interval.loads);
    },
  );

  it('asks nothing of soft water that only hard water needs', () => {
    const descale = (hardness?: number) =>
      dueOf({
        task: 'descale',
        openings: [[400]],
        house: hardness === undefined ? {} : { hardness },
      });
    expect(descale(90)).toMatchObject({ status: 'off', needless: 'soft-water' });
    expect(descale(240).status).toBe('due');
    expect(descale().status).toBe('due');
  });

  it('comes sooner where more is washed', () => {
    const usual = dueOf({ openings: [[10]], taps: daily(10), perWeek: 5 });
    expect(usual.by).toBe('loads');
    expect(usual.on! < dueOf({ openings: [[10]], perWeek: 5 }).on!).toBe(true);
  });

  it('is due on the day on which the loads were reached, told afterwards', () => {
    const over = dueOf({ openings: [[55]], taps: daily(60), perWeek: 7 });
    expect(over).toMatchObject({ status: 'due', by: 'loads' });
    expect(over.on).toBe(plusDays(TODAY, -55 + 44));
  });

  it('does without loads: the months still count, and nothing is divided by nothing', () => {
    const idle = dueOf({ openings: [[10]], perWeek: 0 });
    expect(idle.by).toBe('days');
    expect(idle.on).toBe(plusMonths(plusDays(TODAY, -10), 2));
  });

  it('halves the wash of the lint screen while softener is in use', () => {
    const plain = dueOf({ task: 'lint-screen-wash', openings: [[1]] });
    const softened = dueOf({
      task: 'lint-screen-wash',
      openings: [[1]],
      machine: { habits: ['softener'] },
    });
    expect(softened.base).toBeCloseTo(plain.base / 2, 9);
    expect(why(taskById('lint-screen-wash'), softened, TODAY).profile).toBe(
      'Halved: softener or dryer sheets in use.',
    );
  });

  it('speeds the duct up for a riser or two elbows, once', () => {
    const base = (features: Machine['features']) =>
      dueOf({ task: 'duct-run', machine: { features } }).base;
    expect(base({ riser: 'yes' })).toBeCloseTo(base({}) / 1.5, 9);
    expect(base({ elbows: 3, riser: 'yes' })).toBeCloseTo(base({}) / 1.5, 9);
    expect(base({ elbows: 1, riser: 'no' })).toBe(base({}));
  });

  it('shortens at once when it was found blocked', () => {
    const bad = dueOf({ openings: [[100], [57, 4]] });
    expect(bad.learned).toBeLessThan(bad.base);
    expect(bad.on! < dueOf({ openings: [[100], [57]] }).on!).toBe(true);
  });

  it('lengthens by half at most at each opening, and not past twice the longest school', () => {
    const openings = Array.from({ length: 24 }, (_, i): [number, Grade] => [1800 - i * 61, 0]);
    const most = 2 * inDriver(taskById('pump-filter').intervals.stretch, 'loads');
    let before = dueOf({}).base;
    const held = openings.map((_, i) => {
      const one = dueOf({ openings: [[1861], ...openings.slice(0, i + 1)] });
      expect(one.learned).toBeLessThanOrEqual(before * 1.5 + 1e-9);
      expect(one.learned).toBeLessThanOrEqual(most + 1e-9);
      before = one.learned;
      return one.held;
    });
    expect(held[0]).toBe('restraint');
    expect(before).toBeCloseTo(most, 6);
    expect(held.at(-1)).toBe('stretch');
  });

  it('comes to the same interval as going through every opening one by one', () => {
    const seen = fc.array(
      fc.tuple(fc.integer({ min: 3, max: 120 }), fc.constantFrom<Grade>(0, 0, 0, 1, 1, 2, 3, 4)),
      { minLength: 12, maxLength: 40 },
    );
    fc.assert(
      fc.property(seen, (gaps) => {
        let ago = 2;
        const openings = gaps
          .map(([gap, grade]): [number, Grade] => [(ago += gap), grade])
          .reverse();
        const base = dueOf({}).base;
        const most = 2 * inDriver(taskById('pump-filter').intervals.stretch, 'loads');
        const belief = new RateBelief(base);
        let learned = base;
        let failed = Infinity;
        openings.forEach(([day, grade], i) => {
          if (i === 0) return;
          const n = ((openings[i - 1]![0] - day) * 5) / 7;
          belief.observe(grade, n);
          if (grade === 4) failed = Math.min(failed, n);
          const heavy = grade >= 3 ? 1.15 * n : Infinity;
          learned = Math.min(belief.dueAt(), learned * 1.5, most, failed, heavy);
        });
        expect(dueOf({ openings }).learned / learned).toBeCloseTo(1, 9);
      }),
      { numRuns: 40 },
    );
  });

  it.each(TASKS.filter(({ cap }) => cap?.months).map(({ id }) => id))(
    'never passes the cap of %s',
    (task) => {
      const cap = taskById(task).cap!.months!;
      const grade = fc.constantFrom<Grade>(0, 1, 2);
      fc.assert(
        fc.property(
          fc.array(grade, { minLength: 1, maxLength: 12 }),
          fc.nat(40),
          (grades, rate) => {
            const openings = grades.map((g, i): [number, Grade] => [
              20 + (grades.length - i) * 70,
              g,
            ]);
            const one = dueOf({
              task,
              openings: [[20 + (grades.length + 1) * 70], ...openings],
              perWeek: rate,
            });
            const last = plusDays(TODAY, -(20 + 70));
            expect(one.on! <= plusMonths(last, cap)).toBe(true);
          },
        ),
      );
    },
  );

  it('counts from the last clean and learns from a look that left it alone', () => {
    const looked = dueOf({ openings: [[40], [10, 3, false]] });
    expect(looked.last!.entryId).toBe('pump-filter-40');
    expect(looked.evidence).toHaveLength(1);
    expect(looked.learned).toBeLessThan(looked.base);
  });

  it('learns nothing from the first opening, before which the use is not known', () => {
    expect(dueOf({ openings: [[20, 4]] }).evidence).toEqual([]);
  });

  it('is right for the same task twice on one day', () => {
    const once = dueOf({ openings: [[60], [9, 2]] });
    const twice = dueOf({ openings: [[60], [9, 2], [9, 4]] });
    expect(twice.evidence).toHaveLength(1);
    expect(twice.on).toBe(once.on);
  });

  it('gives the former date back exactly when an opening is undone', () => {
    const seen = fc.array(
      fc.tuple(
        fc.integer({ min: 1, max: 600 }),
        fc.integer({ min: 0, max: 4 }) as fc.Arbitrary<Grade>,
      ),
      { minLength: 1, maxLength: 8 },
    );
    fc.assert(
      fc.property(seen, fc.integer({ min: 1, max: 600 }), (openings, extra) => {
        const before = dueOf({ openings });
        dueOf({ openings: [...openings, [extra, 4]] });
        expect(dueOf({ openings })).toEqual(before);
      }),
    );
  });

  it('never lengthens for a heavier grade, with restraint and caps in force', () => {
    const seen = fc.array(
      fc.tuple(
        fc.integer({ min: 20, max: 90 }),
        fc.integer({ min: 0, max: 3 }) as fc.Arbitrary<Grade>,
      ),
      { minLength: 2, maxLength: 7 },
    );
    fc.assert(
      fc.property(seen, (gaps) => {
        let ago = 5;
        const openings = gaps.map(([gap, grade]): [number, Grade] => {
          ago += gap;
          return [ago, grade];
        });
        const heavier = openings.with(0, [openings[0]![0], (openings[0]![1] + 1) as Grade]);
        expect(dueOf({ openings: heavier }).learned).toBeLessThanOrEqual(
          dueOf({ openings }).learned + 1e-9,
        );
      }),
    );
  });

  it('keeps calendar months across a change of clocks and the end of a month', () => {
    const spring = Date.parse('2026-04-10T22:30:00Z');
    const across = dueOf({ task: 'dispenser', openings: [[31]], perWeek: 0, now: spring });
    expect(across.last!.day).toBe('2026-03-10');
    expect(across.days).toBe(32);
    expect(across.on).toBe('2026-04-10');
    const january = Date.parse('2026-02-01T12:00:00Z');
    expect(dueOf({ task: 'dispenser', openings: [[1]], perWeek: 0, now: january }).on).toBe(
      '2026-02-28',
    );
  });

  it('says in a sentence what was learned and what holds it', () => {
    const one = dueOf({ openings: [[300], [230, 1], [170, 1], [110, 1], [50, 1]] });
    const said = why(taskById('pump-filter'), one, TODAY);
    expect(said.evidence).toMatch(
      /^Opened 4 times, after about 4\d loads: light each time\. Was every 43 loads, now every \d+\./,
    );
    expect(said.lastTime).toContain('about 36 loads since, from your usual week');
  });

  it('is right for loads entered afterwards for a past week, and says what it rests on', () => {
    const week = Array.from({ length: 20 }, (_, i) => ({
      at: NOW - (20 + (i % 5)) * MS_PER_DAY,
      count: 1,
    }));
    const before = dueOf({ openings: [[30]], taps: daily(10), perWeek: 5 });
    const after = dueOf({ openings: [[30]], taps: [...daily(10), ...week], perWeek: 5 });
    expect(after.loads!.counted).toBe(before.loads!.counted + 20);
    expect(after.on! < before.on!).toBe(true);
    expect(why(taskById('pump-filter'), after, TODAY).lastTime).toContain('30 counted');
  });

  it('is right for a task done late and for one done early', () => {
    const late = dueOf({ openings: [[120], [30, 3]] });
    const early = dueOf({ openings: [[120], [110, 3]] });
    expect(late.evidence[0]!.n).toBeCloseTo((90 * 5) / 7, 6);
    expect(early.evidence[0]!.n).toBeCloseTo((10 * 5) / 7, 6);
    // Heavy after 90 days is no news; heavy after 10 shortens a good deal.
    expect(early.learned).toBeLessThan(late.learned / 3);
    expect(late.last!.day).toBe(plusDays(TODAY, -30));
  });

  it('counts a load for what it was where its programme was noted', () => {
    const taps = (programme?: 'cool' | 'hot'): LoadCount[] =>
      daily(20).map((tap) => (programme ? { ...tap, programme } : tap));
    const use = (programme?: 'cool' | 'hot', habits: Machine['habits'] = []) =>
      dueOf({
        task: 'drum-clean',
        openings: [[20]],
        taps: taps(programme),
        perWeek: 0,
        machine: { habits },
      });
    expect(use().use).toBe(20);
    expect(use('cool').use).toBe(30);
    expect(use('hot').use).toBe(10);
    // Mostly cool washes are in the interval already: a load said to be cool counts once, a hot one less.
    expect(use('cool', ['cool-washes']).use).toBeCloseTo(20, 9);
    expect(use('hot', ['cool-washes']).use).toBeCloseTo(10 / 1.5, 9);
    expect(why(taskById('drum-clean'), use('cool'), TODAY).lastTime).toContain('count as 30 loads');
  });

  it('lets the household set a multiplier, and says that it is its own', () => {
    const base = (multipliers: Household['multipliers']) =>
      dueOf({
        task: 'lint-screen-wash',
        openings: [[5]],
        machine: { habits: ['softener'] },
        house: multipliers ? { multipliers } : {},
      });
    const plain = base(undefined).base;
    expect(base({ softener: 4 }).base).toBeCloseTo(plain / 2, 9);
    expect(base({ softener: 1 }).base).toBeCloseTo(plain * 2, 9);
    expect(why(taskById('lint-screen-wash'), base({ softener: 4 }), TODAY).profile).toContain(
      '(your own figure)',
    );
  });

  it('learns from a figure read against the clean machine’s own, more sharply than from a grade', () => {
    const at = (daysAgo: number) => NOW - daysAgo * MS_PER_DAY;
    const read = (daysAgo: number, value: number) => ({
      entryId: `r${daysAgo}`,
      at: at(daysAgo),
      day: dayOf(at(daysAgo), ZONE),
      quantity: 'drain-time' as const,
      value,
    });
    const withReadings = (...readings: ReturnType<typeof read>[]) =>
      due({
        task: taskById('pump-filter'),
        machine: machine('front-load-washer'),
        household: household({ zone: ZONE }),
        openings: new Openings([opening('pump-filter', 60)]),
        readings,
        usage: new Usage([], 5),
        now: NOW,
      });
    const slow = withReadings(read(59, 40), read(10, 76));
    expect(slow.evidence).toHaveLength(1);
    expect(slow.evidence[0]!.measured).toMatchObject({
      quantity: 'drain-time',
      value: 76,
      clean: 40,
      fouling: expect.closeTo(0.9, 9) as number,
    });
    expect(slow.learned).toBeLessThan(slow.base);
    const asFast = withReadings(read(59, 40), read(10, 41));
    expect(asFast.learned).toBeGreaterThan(asFast.base);
    // Without a figure of the clean machine there is nothing to compare with.
    expect(withReadings(read(10, 76)).evidence).toEqual([]);
    expect(why(taskById('pump-filter'), slow, TODAY).evidence).toContain(
      'emptying took 76 s against 40 s when clean, 90 % of the way to trouble',
    );
  });
});
