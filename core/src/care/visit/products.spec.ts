import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Machine, VisitProgress } from '../../model/schemas.js';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { meetings, type ChemicalEvent } from '../../chemistry/guard.js';
import { NOTHING, productById, PRODUCTS } from '../../chemistry/products.js';
import { stationsOf, tasksOf } from '../catalogue/lookup.js';
import {
  chemicalsOf,
  entryOfFullRinse,
  entryOfProduct,
  entryOfRinse,
  entryOfUse,
  eventsOfVisit,
  fullRinseKey,
  meetingsOf,
  presentIn,
  productsUsed,
  stoppedSteps,
} from './products.js';
import { checkEntry, completed } from '../record/entry-rules.js';
import { sayEntry } from '../record/entry-words.js';
import { emptyProgress } from './progress.js';
import { planVisit, type VisitPlan } from './plan.js';
import { machine } from '../../model/testing.js';
import { Usage } from '../record/load-counts.js';

const washer = machine('front-load-washer', { features: { filterAccess: 'front-left' } });
const AT = '2026-06-15T10:00:00Z';
const NOW = Date.parse(AT);
const idAt = (n: number): string => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

const stepAt = (plan: VisitPlan, end: string) => plan.steps.find(({ key }) => key.endsWith(end))!;

const event = (change: Partial<ChemicalEvent>): ChemicalEvent => ({
  entryId: idAt(1),
  at: NOW,
  kind: 'chemical',
  product: 'mould-bleach',
  actives: ['hypochlorite'],
  ...change,
});

describe('the guard in a visit', () => {
  const plan = planVisit(
    [
      { machineId: washer.id, task: 'gasket-folds' },
      { machineId: washer.id, task: 'drum-clean' },
    ],
    [washer],
  );
  const treat = stepAt(plan, 'gasket-folds/treat');
  const drum = stepAt(plan, 'drum-clean/manual-says');
  const rinse = stepAt(plan, 'gasket-folds/rinse');
  const progress = (change: Partial<VisitProgress>): VisitProgress => ({
    ...emptyProgress(),
    ...change,
  });
  const present = (change: Partial<VisitProgress>) =>
    presentIn({ events: [] }, eventsOfVisit(plan, washer, progress(change)));

  it('stops vinegar in the drum after chlorine on the gasket, until a rinse has run', () => {
    const brought = { [treat.key]: { product: 'mould-bleach', at: AT, entryId: idAt(1) } };
    const [met] = meetingsOf('vinegar', present({ brought }));
    expect(met).toMatchObject({ brought: 'acetic-acid', sure: true });
    expect(met!.rule.gives).toBe('chlorine gas');
    expect(meetingsOf('citric-acid', present({ brought }))).toHaveLength(1);
    expect(meetingsOf('cleaner-mild', present({ brought }))).toEqual([]);
    const rinsed = { [rinse.key]: { entryId: idAt(2), at: '2026-06-15T10:40:00Z' } };
    expect(meetingsOf('vinegar', present({ brought, rinsed }))).toEqual([]);
  });

  it('asks for the rinse before it asks what goes into the drum', () => {
    const order = [treat, rinse, drum].map((step) => plan.steps.indexOf(step));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(drum.step.brings!.products).toContain('vinegar');
  });

  it('takes a rinse told at no step, and one of a single place for that place', () => {
    const brought = { [treat.key]: { product: 'mould-bleach', at: AT, entryId: idAt(1) } };
    const rinsed = { [fullRinseKey(washer.id)]: { entryId: idAt(3), at: '2026-06-15T10:10:00Z' } };
    expect(present({ brought })).toHaveLength(1);
    expect(present({ brought, rinsed })).toEqual([]);
    const filter = planVisit([{ machineId: washer.id, task: 'pump-filter' }], [washer]);
    const soak = stepAt(filter, 'pump-filter/soak');
    const tap = stepAt(filter, 'pump-filter/soak-rinse');
    const events = eventsOfVisit(filter, washer, {
      brought: { [soak.key]: { product: 'vinegar', at: AT, entryId: idAt(4) } },
      rinsed: { [tap.key]: { entryId: idAt(5), at: '2026-06-15T10:20:00Z' } },
    });
    expect(presentIn({ events: [] }, events)).toEqual([]);
    const gasket = event({ entryId: idAt(6), station: 'gasket' });
    expect(presentIn({ events: [gasket] }, events)).toEqual([gasket]);
  });

  it('counts nothing used as nothing there', () => {
    expect(present({ brought: { [treat.key]: { product: NOTHING, at: AT } } })).toEqual([]);
    expect(meetingsOf(NOTHING, [event({})])).toEqual([]);
  });

  it('says ahead which steps a rinse must come before', () => {
    const descale = planVisit([{ machineId: washer.id, task: 'descale' }], [washer]);
    expect(stoppedSteps(descale, () => [event({})]).map(({ step }) => step.id)).toEqual([
      'pour-acid',
    ]);
    expect(stoppedSteps(descale, () => [])).toEqual([]);
    const rinsedBefore = planVisit(
      ['gasket-folds', 'descale'].map((task) => ({ machineId: washer.id, task })),
      [washer],
    );
    expect(stoppedSteps(rinsedBefore, () => [event({})])).toEqual([]);
  });

  it('lets no forbidden meeting through, whatever visit is planned and whatever is answered', () => {
    const visit = fc.constantFrom(...MACHINE_KINDS).chain((kind) => {
      const one = machine(kind, { features: { sensor: 'yes' } });
      const ids = tasksOf(one).map(({ id }) => id);
      return fc.tuple(
        fc.constant(one),
        fc.subarray(ids, { minLength: 1 }),
        fc.infiniteStream(fc.nat(7)),
      );
    });
    fc.assert(
      fc.property(visit, ([one, tasks, answers]) => {
        const walked = planVisit(
          tasks.map((task) => ({ machineId: one.id, task })),
          [one],
        );
        const run = progress({});
        let n = 0;
        const at = () => new Date(NOW + n * 1000).toISOString();
        for (const step of walked.steps) {
          n++;
          const there = presentIn({ events: [] }, eventsOfVisit(walked, one, run));
          const { brings, rinses } = step.step;
          if (rinses && (answers.next().value ?? 0) > 2) {
            run.rinsed = { ...run.rinsed, [step.key]: { entryId: idAt(n), at: at() } };
          }
          if (!brings) continue;
          const product = brings.products[(answers.next().value ?? 0) % brings.products.length]!;
          if (meetingsOf(product, there).length) continue;
          expect(meetings(productById(product).actives, there)).toEqual([]);
          run.brought = { ...run.brought, [step.key]: { product, at: at(), entryId: idAt(n) } };
        }
        const all = eventsOfVisit(walked, one, run).filter(({ kind }) => kind === 'chemical');
        const bleached = all.filter(({ actives }) => actives.includes('hypochlorite'));
        const acid = all.filter(({ actives }) =>
          actives.some((active) => active === 'acid' || active === 'acetic-acid'),
        );
        for (const a of bleached) {
          for (const b of acid) {
            const [first, second] = a.at < b.at ? [a, b] : [b, a];
            const between = eventsOfVisit(walked, one, run).filter(
              ({ kind, at: when, station }) =>
                kind === 'rinse' &&
                when >= first.at &&
                when <= second.at &&
                (station === undefined || station === first.station),
            );
            expect(between.length).toBeGreaterThan(0);
          }
        }
      }),
      { numRuns: 150 },
    );
  });

  it('names only products that are known, and something to rinse with after each', () => {
    for (const kind of MACHINE_KINDS) {
      const one = machine(kind, { features: { sensor: 'yes', dispenser: 'drawer' } });
      for (const { id } of tasksOf(one)) {
        const { steps } = planVisit([{ machineId: one.id, task: id }], [one]);
        steps.forEach(({ step }, i) => {
          for (const product of step.brings?.products ?? []) productById(product);
          if (!step.brings) return;
          const after = steps.slice(i + 1).some((later) => later.step.rinses !== undefined);
          expect(after, `${id} ${step.id}`).toBe(true);
        });
      }
    }
  });
});

describe('what the record says is in a machine', () => {
  const history = (chemicals: ChemicalEvent[], loads: number[] = []) => ({
    chemicals,
    usage: new Usage(
      loads.map((at) => ({ at, count: 1 })),
      5,
    ),
  });

  it('is gone after a full rinse, or a load of a washer, but not after a load of a dryer', () => {
    const used = event({ at: NOW - 1000 });
    expect(chemicalsOf(washer, history([used])).events).toEqual([used]);
    expect(chemicalsOf(washer, history([used], [NOW])).events).toEqual([]);
    expect(chemicalsOf(washer, history([used], [NOW - 2000])).events).toEqual([used]);
    const dryer = machine('vented-dryer');
    expect(chemicalsOf(dryer, history([used], [NOW])).events).toEqual([used]);
    const rinse = event({ entryId: idAt(2), kind: 'rinse', actives: [] });
    expect(chemicalsOf(washer, history([used, rinse]))).toEqual({ since: NOW, events: [] });
  });

  it('offers first what was used last', () => {
    const list = productsUsed([
      history([event({ product: 'vinegar', at: 1 }), event({ product: 'bleach', at: 5 })]),
      history([event({ product: 'vinegar', at: 3 })]),
    ]);
    expect(list).toEqual(['bleach', 'vinegar']);
  });

  it('is written as entries that hold, and read in words', () => {
    const plan = planVisit([{ machineId: washer.id, task: 'dispenser' }], [washer]);
    const drawer: Machine = { ...washer, features: { dispenser: 'drawer' } };
    const entries = [
      entryOfUse(stepAt(plan, 'dispenser/mould'), 'mould-unknown', drawer, AT),
      entryOfRinse(stepAt(plan, 'dispenser/mould-rinse'), drawer, AT),
      entryOfFullRinse(washer.id, AT, 'machine'),
      entryOfProduct(washer.id, 'bleach', AT, stationsOf(washer)[0]!.id),
      entryOfProduct(washer.id, 'cleaner-mild', AT),
    ];
    for (const entry of entries) expect(checkEntry(completed(entry), drawer, NOW)).toEqual([]);
    expect(entries.map((entry) => sayEntry(entry))).toEqual([
      'Used: mould remover, I cannot tell which',
      'Rinsed: dispenser',
      'A full rinse has run',
      'Used: chlorine bleach',
      'Used: machine cleaner with neither',
    ]);
    const odd = checkEntry(
      { kind: 'load', at: AT, machineId: washer.id, actives: ['acid'] },
      washer,
      NOW,
    );
    expect(odd).toEqual([{ field: 'actives', message: expect.any(String) as string }]);
    const bare = checkEntry({ kind: 'chemical', at: AT, machineId: washer.id }, washer, NOW);
    expect(bare.map(({ field }) => field)).toEqual(['product', 'actives']);
    expect(PRODUCTS.length).toBeGreaterThan(10);
  });
});
