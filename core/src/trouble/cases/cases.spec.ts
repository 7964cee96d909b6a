import { describe, expect, it } from 'vitest';
import { check } from '../../model/check.js';
import type { CaseEvent, CaseRecord } from '../../model/schemas.js';
import {
  CASE_EVENTS,
  MACHINE_KINDS,
  type CaseEnding,
  type MachineKind,
} from '../../model/vocabulary.js';
import { SYMPTOMS } from '../data/symptoms.js';
import { checkCaseEvents } from './check.js';
import { caseSummary } from './summary.js';
import { CASE_MEASURES, measuresFor, verdictOf } from './measures.js';
import {
  comparisons,
  entriesOfCase,
  provenBy,
  sayCaseEvent,
  sayOutcome,
  withFigures,
} from './say.js';
import {
  caseState,
  caseTitle,
  goesOn,
  isMereLook,
  isRested,
  returning,
  signsOf,
  situationIn,
} from './state.js';

const DAY = 86_400_000;
const T0 = Date.parse('2026-03-01T10:00:00Z');
let number = 0;
const happened = (kind: CaseEvent['kind'], more: object = {}, days = 0) =>
  ({
    id: `00000000-0000-4000-8000-${String(++number).padStart(12, '0')}`,
    at: new Date(T0 + days * DAY).toISOString(),
    kind,
    ...more,
  }) as CaseEvent;
const record = (...events: CaseEvent[]): CaseRecord => ({
  id: 'case',
  machineId: 'washer',
  events,
});
const slow = happened('answer', { finding: 'drains-slowly', answer: 'yes' });
const fix = happened('fix', { cause: 'filter-clogged', task: 'pump-filter' }, 1);

describe('what holds in a case', () => {
  it('follows its events: told, taken back, and told by a code', () => {
    const code = happened('code', { code: { code: 'HEM-18', class: 'drain', listed: true } });
    const state = caseState(
      record(
        slow,
        happened('answer', { finding: 'gurgle', answer: 'yes' }),
        happened('take-back', { finding: 'gurgle' }),
        code,
      ),
    );
    expect(state.answers).toEqual({ 'drains-slowly': 'yes' });
    expect(state.codes).toHaveLength(1);
    expect(caseTitle(state)).toBe('It drains slowly');
    const without = caseState(record(slow, code, happened('code-back', { of: code.id })));
    expect(without.codes).toEqual([]);
    expect(caseTitle(caseState(record(code)))).toContain('HEM-18');
  });

  it('has a title from the first moment on, and none without an event', () => {
    expect(caseTitle(caseState(record(happened('stop', { stop: 'smoke' }))))).toBe(
      'Stopped for safety: smoke or flames',
    );
    expect(() => caseState(record())).toThrow(RangeError);
  });

  it('rests until a day, and wakes', () => {
    const rested = caseState(record(slow, happened('rest', { until: '2026-03-04' })));
    expect(rested.state).toBe('resting');
    expect(isRested(rested, '2026-03-03')).toBe(false);
    expect(isRested(rested, '2026-03-04')).toBe(true);
    expect(caseState(record(slow, happened('rest'), happened('wake'))).state).toBe('open');
  });

  it('rules a cause out when its work did not help, and looks on', () => {
    const state = caseState(
      record(
        slow,
        fix,
        happened('measure', { quantity: 'drain-time', value: 90, unit: 's' }),
        happened('gone', { finding: 'drains-slowly', gone: false }),
      ),
    );
    expect(state.tried).toEqual(['filter-clogged']);
    expect(state.fix).toBeUndefined();
    expect(state.before['drain-time']!.value).toBe(90);
    expect(situationIn({ kind: 'front-load-washer', features: {} }, state).ruledOut).toEqual([
      'filter-clogged',
    ]);
  });

  it('takes work back that was begun and not done, and rules nothing out', () => {
    const state = caseState(record(slow, fix, happened('fix-back')));
    expect(state.fix).toBeUndefined();
    expect(state.tried).toEqual([]);
  });

  it('opens again with its symptoms, but asks the looks anew', () => {
    const state = caseState(
      record(
        slow,
        happened('answer', { finding: 'open-filter', answer: 'yes' }),
        fix,
        happened('close', { ending: 'fixed', returnDays: 60 }),
        happened('reopen'),
      ),
    );
    expect(state.state).toBe('open');
    expect(state.reopened).toBe(1);
    expect(state.answers).toEqual({ 'drains-slowly': 'yes' });
    expect(state.fix).toBeUndefined();
  });
});

describe('a closed case comes back', () => {
  const closed = record(slow, fix, happened('close', { ending: 'fixed', returnDays: 30 }, 2));
  it('within its time, for its machine and its symptom', () => {
    const told = { finding: 'drains-slowly' };
    expect(returning([closed], 'washer', told, T0 + 32 * DAY)).toBe(closed);
    expect(returning([closed], 'washer', told, T0 + 32.1 * DAY)).toBeUndefined();
    expect(returning([closed], 'dryer', told, T0 + 3 * DAY)).toBeUndefined();
    expect(returning([closed], 'washer', { finding: 'gurgle' }, T0 + 3 * DAY)).toBeUndefined();
  });
  it('but not where it was a mistake', () => {
    const slip = record(slow, happened('close', { ending: 'mistake' }));
    expect(returning([slip], 'washer', { finding: 'drains-slowly' }, T0)).toBeUndefined();
  });
});

const KIND = 'front-load-washer';
const MACHINE = { kind: KIND, features: {} } as const;

describe('the proof of a case', () => {
  const before = happened('measure', { quantity: 'drain-time', value: 118, unit: 's' });
  const after = (value: number) =>
    happened('measure', { quantity: 'drain-time', value, unit: 's' }, 2);
  const gone = happened('gone', { finding: 'drains-slowly', gone: true }, 2);

  it('holds when what was told is gone and the same figure is better', () => {
    expect(provenBy(caseState(record(slow, before, fix, after(60), gone)), KIND)).toBe('proven');
    expect(provenBy(caseState(record(slow, before, fix, after(60))), KIND)).toBe('open');
    expect(provenBy(caseState(record(slow, before, fix, after(115), gone)), KIND)).toBe('doubtful');
    expect(provenBy(caseState(record(slow, before)), KIND)).toBe('open');
  });

  it('says before and after at the end, and the log keeps it', () => {
    const close = happened('close', { ending: 'fixed' }, 3);
    const state = caseState(record(slow, before, fix, after(60), gone, close));
    expect(sayOutcome(state, KIND)).toBe(
      'It drains slowly: fixed. Cause: the pump filter is clogged. Seconds until the drum is empty: 118 before, 60 after.',
    );
    const entry = entriesOfCase(close, state, { id: 'case', machineId: 'washer' }, MACHINE).at(-1);
    expect(entry).toMatchObject({ kind: 'case', station: 'pump-filter', caseId: 'case' });
    expect(
      entriesOfCase(before, state, { id: 'case', machineId: 'washer' }, MACHINE),
    ).toMatchObject([{ kind: 'reading', quantity: 'drain-time', value: 118 }]);
  });

  it('takes the log’s figures where the case has none: the last before the work, the last since', () => {
    const logged = {
      'drain-time': [60, 118, 80].map((value, i) => ({ value, at: T0 + (2 - 2 * i) * DAY })),
    };
    const state = withFigures(caseState(record(slow, fix)), KIND, logged);
    expect(comparisons(state, KIND)[0]).toMatchObject({
      before: 118,
      after: 60,
      verdict: 'better',
    });
    const old = { 'drain-time': [{ value: 50, at: T0 - 200 * DAY }] };
    expect(
      comparisons(withFigures(caseState(record(slow, fix)), KIND, old), KIND)[0]!.before,
    ).toBeUndefined();
  });

  it('knows which way is better', () => {
    expect(verdictOf({ lessIsBetter: true }, 100, 60)).toBe('better');
    expect(verdictOf({ lessIsBetter: false }, 100, 60)).toBe('worse');
    expect(verdictOf({ lessIsBetter: true }, 100, 95)).toBe('same');
    for (const { of } of CASE_MEASURES)
      for (const id of of)
        expect(
          SYMPTOMS.some((one) => one.id === id),
          id,
        ).toBe(true);
    expect(measuresFor(['long-drying'], 'vented-dryer').map(({ quantity }) => quantity)).toEqual([
      'drying-minutes',
      'bag-fill-time',
      'screen-light',
    ]);
  });

  it('tells levels by how far they are apart, not in times', () => {
    const loud = { lessIsBetter: true, apart: 3 };
    expect(verdictOf(loud, 62, 53)).toBe('better');
    expect(verdictOf(loud, 62, 60)).toBe('same');
    expect(verdictOf(loud, 4, 62)).toBe('worse');
  });
});

describe('a breakdown teaches', () => {
  const taughtBy = (cause: string, ending: CaseEnding = 'fixed') => {
    const fixed = happened('fix', { cause }, 1);
    const close = happened('close', { ending }, 3);
    const state = caseState(record(slow, fixed, close));
    return entriesOfCase(close, state, { id: 'case', machineId: 'washer' }, MACHINE).filter(
      ({ kind }) => kind === 'opened',
    );
  };

  it('a case mended counts as its station found blocked, when the work began', () => {
    const [opening, ...more] = taughtBy('filter-clogged');
    expect(more).toEqual([]);
    expect(opening).toMatchObject({
      task: 'pump-filter',
      grade: 4,
      at: new Date(T0 + DAY).toISOString(),
    });
    expect(opening!.id).not.toBe(taughtBy('filter-clogged')[0]!.id);
  });

  it.each([
    'filter-not-seated',
    'drain-hose-closed',
    'load-unbalanced',
    'off-level',
    'pump-failed',
  ])('one of %s teaches nothing of fouling', (cause) => {
    expect(taughtBy(cause)).toEqual([]);
  });

  it.each(['professional', 'by-itself', 'mistake'] as const)(
    'nor one that ended as %s',
    (ending) => {
      expect(taughtBy('filter-clogged', ending)).toEqual([]);
    },
  );
});

describe('one trouble is one case', () => {
  it('the same symptom or code goes on in the open case of its machine', () => {
    const code = happened('code', { code: { code: 'Wisp 4', class: 'drain', listed: true } });
    const open = record(slow, code);
    expect(goesOn([open], 'washer', { finding: 'drains-slowly' })).toBe(open);
    expect(goesOn([open], 'washer', { code: 'Wisp 4' })).toBe(open);
    expect(goesOn([open], 'washer', { finding: 'roar' })).toBeUndefined();
    expect(goesOn([open], 'dryer', { finding: 'drains-slowly' })).toBeUndefined();
    const closed = record(slow, happened('close', { ending: 'fixed' }));
    expect(goesOn([closed], 'washer', { finding: 'drains-slowly' })).toBeUndefined();
  });

  it('where everything was taken back, nobody did more than look', () => {
    const look = [happened('no-stop'), slow, happened('take-back', { finding: 'drains-slowly' })];
    expect(isMereLook(caseState(record(...look)))).toBe(true);
    expect(isMereLook(caseState(record(slow)))).toBe(false);
    expect(isMereLook(caseState(record(...look, happened('note', { note: 'Odd.' }))))).toBe(false);
  });
});

describe('a case is proved in its fault’s own terms', () => {
  const stops = happened('answer', { finding: 'stops-minutes', answer: 'yes' });
  const code = happened('code', { code: { code: 'Wisp 4', class: 'drain', listed: true } });
  const fix2 = happened('fix', { cause: 'fine-filter-clogged', task: 'fine-filter' }, 1);
  const ran = (value: number, day = 0) =>
    happened('measure', { quantity: 'run-minutes', value, unit: 'min' }, day);
  const gone = (finding: string) => happened('gone', { finding, gone: true }, 2);

  it('a condenser dryer that stops is asked for minutes until it stopped, and never for a drum’s draining', () => {
    const state = caseState(record(stops, code, fix2));
    const asked = (kind: MachineKind) =>
      comparisons(state, kind).map(({ measure }) => measure.quantity);
    expect(asked('condenser-dryer')).toEqual(['run-minutes']);
    for (const kind of MACHINE_KINDS) {
      for (const { measure } of comparisons(state, kind)) {
        expect(measure.kinds, `${kind} ${measure.quantity}`).toContain(kind);
      }
    }
  });

  it('holds where it runs three times as long: 5 to 15 and more', () => {
    const proven = (after: number) =>
      provenBy(
        caseState(record(stops, ran(5), fix2, ran(after, 2), gone('stops-minutes'))),
        'condenser-dryer',
      );
    expect(proven(15)).toBe('proven');
    expect(proven(14)).toBe('doubtful');
    expect(proven(90)).toBe('proven');
  });

  it('one told by a code alone is closed by “the code is gone”', () => {
    const before = caseState(record(code, fix2));
    expect(provenBy(before, 'condenser-dryer')).toBe('open');
    const [sign] = signsOf(before);
    const after = caseState(record(code, fix2, gone(sign!)));
    expect(provenBy(after, 'condenser-dryer')).toBe('proven');
    expect(sayCaseEvent(gone(sign!))).toBe('The code — gone');
    expect(checkCaseEvents([gone(sign!)], 'condenser-dryer', T0 + 30 * DAY)).toEqual([]);
  });

  it('what the visit showed counts: a good drain test is the answer to “it drains slowly”', () => {
    const proof = {
      at: T0 + 2 * DAY,
      task: 'pump-filter',
      say: 'Run a rinse.',
      quantity: 'drain-time',
    };
    const of = (good: boolean) =>
      withFigures(caseState(record(slow, fix)), KIND, {}, [{ ...proof, good }]);
    expect(provenBy(caseState(record(slow, fix)), KIND)).toBe('open');
    expect(of(true).gone).toEqual({ 'drains-slowly': true });
    expect(provenBy(of(true), KIND)).toBe('proven');
    expect(provenBy(of(false), KIND)).toBe('doubtful');
    const old = { ...proof, good: true, at: T0 - DAY };
    expect(withFigures(caseState(record(slow, fix)), KIND, {}, [old]).gone).toEqual({});
  });

  it('is not kept open by what only weeks can tell', () => {
    const worse = happened('answer', { finding: 'getting-worse', answer: 'yes' });
    const state = caseState(record(slow, worse, fix, gone('drains-slowly')));
    expect(provenBy(state, KIND)).toBe('proven');
  });

  it('a figure of another kind of machine is refused', () => {
    const drained = happened('measure', { quantity: 'drain-time', value: 60, unit: 's' });
    const [problem] = checkCaseEvents([drained], 'condenser-dryer', T0 + 30 * DAY);
    expect(problem!.field).toBe('events.0.quantity');
  });
});

describe('what may be told in a case', () => {
  const id = '00000000-0000-4000-8000-00000000000a';
  /** First what the schema says, as the server does; then what it cannot see. */
  const wrong = (kind: CaseEvent['kind'], more: object) => {
    const events = [happened(kind, more)];
    const bySchema = check('CaseNews', { id, machineId: id, events });
    return (bySchema.length ? bySchema : checkCaseEvents(events, 'front-load-washer', T0)).map(
      ({ field }) => field,
    );
  };
  it.each<[CaseEvent['kind'], object, string]>([
    ['answer', { answer: 'yes' }, 'events.0.finding'],
    ['answer', { finding: 'weak-air', answer: 'yes' }, 'events.0.finding'],
    ['gone', { finding: 'open-filter', gone: true }, 'events.0.finding'],
    ['stop', { stop: 'moonlight' }, 'events.0.stop'],
    ['looked', { cause: 'duct-lined' }, 'events.0.cause'],
    ['measure', { quantity: 'drain-time', value: 9, unit: 'L' }, 'events.0.unit'],
    ['measure', { quantity: 'drain-time', value: -9, unit: 's' }, 'events.0.value'],
    ['measure', { quantity: 'standing-water', value: 9, unit: 'L' }, 'events.0.quantity'],
    ['measure', { quantity: 'mood', value: 9, unit: 's' }, 'events.0.quantity'],
    ['close', {}, 'events.0.ending'],
    ['note', {}, 'events.0.note'],
    ['wake', { cause: 'filter-clogged' }, 'events.0.cause'],
    ['dream' as 'note', {}, 'events.0.kind'],
  ])('not %s with %o', (kind, more, field) => {
    expect(wrong(kind, more)).toEqual([field]);
  });
  it('a figure is taken in any unit of its dimension, and weighed in its own', () => {
    const told = { quantity: 'drain-time', value: 2, unit: 'min' };
    expect(wrong('measure', told)).toEqual([]);
    expect(caseState(record(slow, happened('measure', told))).before['drain-time']).toMatchObject({
      value: 120,
      unit: 's',
    });
  });

  it('nothing of tomorrow', () => {
    expect(checkCaseEvents([happened('rest', {}, 1)], 'front-load-washer', T0)[0]!.field).toBe(
      'events.0.at',
    );
  });
  it('and every kind has words', () => {
    const more = {
      finding: 'drains-slowly',
      answer: 'no',
      stop: 'x',
      cause: 'filter-clogged',
      quantity: 'drain-time',
      value: 3,
      unit: 's',
      gone: true,
      ending: 'fixed',
      note: 'A note',
      code: { class: 'drain', listed: false },
    } as const;
    for (const kind of CASE_EVENTS)
      expect(sayCaseEvent(happened(kind, more)).length).toBeGreaterThan(5);
  });
});

it('tells the bench how a case stands', () => {
  const said = (...events: CaseEvent[]) => caseSummary(record(...events), 'UTC', '2026-03-05').said;
  expect(said(slow)).toBe('since 1 March');
  expect(said(slow, fix)).toBe('the work is to be proved');
  expect(said(slow, happened('rest', { until: '2026-03-07' }))).toContain('rests until');
  expect(said(slow, happened('rest', { until: '2026-03-05' }))).toContain('has rested');
});
