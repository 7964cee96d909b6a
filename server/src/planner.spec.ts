import { dayOf, plusDays, type Entry, type Machine } from '@needlecase/core';
import type { PlannedChange } from '@needlecase/core/model/planned';
import type { PlannedVisitView, PlanView } from '@needlecase/core/views/plan';
import request from 'supertest';
import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { HOUSEHOLD } from '../../demo/household.js';
import { makeApp, type App } from './app.js';
import { openDatabase } from './db/open.js';
import { ago } from './testing/household.js';
import { fillDemo } from './work/demo.js';

let app: App;
let api: ReturnType<typeof request>;
const anew = () => {
  app = makeApp(openDatabase(':memory:'));
  api = request(app.express);
  app.store.write(() => fillDemo(app.store, dayOf(Date.now(), HOUSEHOLD.zone)));
};

const plan = async (): Promise<PlanView> => (await api.get('/api/v1/plan').expect(200)).body;
const change = ({ id, version }: PlannedVisitView, body: PlannedChange) =>
  api.put(`/api/v1/plan/visits/${id}`).set('If-Match', `"${version}"`).send(body);
const post = async <T>(path: string, body: object): Promise<T> =>
  (await api.post(`/api/v1/${path}`).send(body)).body as T;
const names = (visit: Pick<PlannedVisitView, 'tasks'>) =>
  visit.tasks.map(({ machineId, task }) => `${machineId}/${task}`).sort();
/** The first visit a while ahead with several tasks, none of which can hurt anybody. */
const harmless = ({ visits, start }: PlanView) =>
  visits.find(
    ({ day, tasks, window }) =>
      day > plusDays(start, 40) && window && tasks.length > 1 && tasks.every((one) => !one.safety),
  )!;
/** Another day on which it keeps its rhythm, and somebody is there. */
function otherDay({ absences }: PlanView, { day, window }: PlannedVisitView): string {
  const days: string[] = [];
  for (let one = window!.from; one <= window!.to; one = plusDays(one, 1)) days.push(one);
  return days.find(
    (one) => one !== day && !absences.some(({ from, to }) => from <= one && one <= to),
  )!;
}
const open = ({ visits }: PlanView) =>
  visits.filter(({ done, skipped }) => !done && skipped === undefined);

describe('the year ahead', () => {
  beforeEach(anew);
  it('is on the days of the household, and on none of those away', async () => {
    const view = await plan();
    expect(view.visits.length).toBeGreaterThan(40);
    for (const { day } of open(view)) {
      expect([6, 0]).toContain(new Date(`${day}T12:00:00Z`).getUTCDay());
      expect(view.absences.some(({ from, to }) => from <= day && day <= to)).toBe(false);
    }
    expect(view.minutes).toBeLessThan(view.apart);
    expect(view.within).toBeLessThan(0.06);
    const sum = open(view).reduce((all, { minutes }) => all + minutes + 10, 0);
    expect(view.minutes).toBe(sum);
  });

  it('tells each visit once, under the same name and version however often it is asked', async () => {
    const [first, again] = [await plan(), await plan()];
    expect(again).toEqual(first);
    app.store.dropCaches();
    expect(await plan()).toEqual(first);
    expect(new Set(first.visits.map(({ id }) => id)).size).toBe(first.visits.length);
  });

  it('has a short visit before long days away, and one on return', async () => {
    const view = await plan();
    const long = view.absences.filter(({ from, to }) => plusDays(from, 6) <= to);
    expect(view.away).toHaveLength(2 * long.length);
    for (const { from, to } of long) {
      expect(view.away.map(({ day }) => day)).toEqual(
        expect.arrayContaining([plusDays(from, -1), plusDays(to, 1)]),
      );
    }
  });

  it('moves no visit of the next four weeks when loads are counted and work is noted', async () => {
    const before = await plan();
    const { id: machineId } = app.store.machines.list()[0]!;
    await post<Entry>('entries', { kind: 'load', machineId, at: ago(0.1), count: 2 });
    await post<Entry>('entries', {
      ...{ kind: 'cleaned', machineId, task: 'dispenser', station: 'dispenser', grade: 2 },
      at: ago(0.1),
    });
    const after = await plan();
    const near = open(before).filter(({ day }) => day < plusDays(before.start, 24));
    expect(near.length).toBeGreaterThan(3);
    for (const visit of near) {
      const rest = names(visit).filter((name) => !name.endsWith('/dispenser'));
      if (rest.length === 0) continue;
      const same = open(after).find(({ id }) => id === visit.id);
      expect(same?.day).toBe(visit.day);
      expect(names(same!)).toEqual(expect.arrayContaining(rest));
    }
  });

  it('tells a visit whose work was done as done, and plans the next', async () => {
    const before = await plan();
    const visit = open(before).find(({ tasks, held }) => tasks.length === 1 && !held)!;
    const { machineId, task } = visit.tasks[0]!;
    const { id } = await post<{ id: string }>('runs', { tasks: [{ machineId, task }] });
    const run = app.store.visits.get(id)!;
    await api
      .patch(`/api/v1/runs/${id}`)
      .set('If-Match', `"${run.version}"`)
      .send({
        progress: {
          ...run.progress,
          tasks: { [`${machineId}/${task}`]: { outcome: 'cleaned', grade: 1 } },
        },
      });
    await post(`runs/${id}/finish`, {});
    const after = await plan();
    const same = after.visits.find((one) => one.id === visit.id)!;
    expect(same.done).toBe(true);
    expect(same.version).toBeGreaterThan(visit.version);
    const next = open(after).find(({ tasks }) =>
      tasks.some((one) => one.machineId === machineId && one.task === task),
    );
    expect(next!.id).not.toBe(visit.id);
    // Done days before it was planned, the next can fall on the day that this one had.
    expect(next!.day > dayOf(Date.now(), HOUSEHOLD.zone)).toBe(true);
  });
});

describe('by hand', () => {
  beforeEach(anew);
  it('a visit is moved, stays there, and gets the next version', async () => {
    const before = await plan();
    const visit = harmless(before);
    const day = otherDay(before, visit);
    const { body } = await change(visit, { day }).expect(200);
    expect(body).toMatchObject({ id: visit.id, day, held: true, version: visit.version + 1 });
    const after = await plan();
    const moved = after.visits.find(({ id }) => id === visit.id)!;
    expect(moved).toMatchObject({ day, held: true });
    expect(names(moved)).toEqual(expect.arrayContaining(names(visit)));
  });

  it('a part of it goes to another day, and the rest stays', async () => {
    const before = await plan();
    const visit = harmless(before);
    const [first] = visit.tasks;
    const day = plusDays(visit.day, 1);
    await change(visit, {
      day,
      tasks: [{ machineId: first!.machineId, task: first!.task }],
    }).expect(200);
    const after = await plan();
    const parted = open(after).find((one) => one.day === day && one.place === visit.place)!;
    expect(names(parted)).toEqual([`${first!.machineId}/${first!.task}`]);
    const rest = after.visits.find(({ id }) => id === visit.id)!;
    expect(rest.day).toBe(visit.day);
    expect(names(rest)).not.toContain(`${first!.machineId}/${first!.task}`);
  });

  it('is given to somebody, pinned, left out once with a reason, and taken back', async () => {
    const visit = harmless(await plan());
    await change(visit, { who: 'Odo', held: true }).expect(200);
    let now = (await plan()).visits.find(({ id }) => id === visit.id)!;
    expect(now).toMatchObject({ who: 'Odo', held: true });
    const hours = (await plan()).minutes;
    await change(now, { skipped: 'The machine is away for repair' }).expect(200);
    now = (await plan()).visits.find(({ id }) => id === visit.id)!;
    expect(now.skipped).toBe('The machine is away for repair');
    expect((await plan()).minutes).toBeLessThan(hours);
    await change(now, { skipped: '', held: false }).expect(200);
    now = (await plan()).visits.find(({ id }) => id === visit.id)!;
    expect(now.skipped).toBeUndefined();
  });

  it('what keeps people safe is moved past its date, or left out, only when said twice', async () => {
    const view = await plan();
    const visit = open(view).find(({ tasks }) => tasks.some(({ safety }) => safety))!;
    const late = plusDays(view.start, 170);
    const day = view.absences.some(({ from, to }) => from <= late && late <= to)
      ? plusDays(late, 30)
      : late;
    const refused = await change(visit, { day }).expect(422);
    expect(refused.body.errors[0].field).toBe('acknowledged');
    await change(visit, { skipped: 'No time' }).expect(422);
    expect((await plan()).visits.find(({ id }) => id === visit.id)).toEqual(visit);
    await change(visit, { day, acknowledged: true }).expect(200);
    const after = await plan();
    expect(after.visits.find(({ id }) => id === visit.id)).toMatchObject({ day });
  });

  it('of two who change the same visit the second is told', async () => {
    const visit = harmless(await plan());
    await change(visit, { who: 'Odo' }).expect(200);
    const { body } = await change(visit, { who: 'Pell' }).expect(409);
    expect(body.current.who).toBe('Odo');
  });
});

describe('what is wrong', () => {
  beforeAll(anew);

  it.each<[string, (view: PlanView) => PlannedChange, string]>([
    ['a day that is over', ({ start }) => ({ day: plusDays(start, -1) }), 'day'],
    ['a day after the plan', ({ end }) => ({ day: plusDays(end, 1) }), 'day'],
    ['a day away', ({ absences }) => ({ day: absences[0]!.from }), 'day'],
    ['a day that is none', () => ({ day: '2027-02-30' }), 'day'],
    [
      'work of another visit',
      ({ machines }) => ({ tasks: [{ machineId: machines[0]!.id, task: 'nothing' }] }),
      'tasks',
    ],
  ])('%s is refused beside its field, and nothing is stored', async (_what, wrong, field) => {
    const view = await plan();
    const visit = harmless(view);
    const { body } = await change(visit, wrong(view)).expect(422);
    expect(body.errors[0].field).toMatch(new RegExp(`^${field}`));
    expect(await plan()).toEqual(view);
  });
});

describe('days away', () => {
  beforeAll(anew);
  it.each([
    ['end before they begin', { from: '2031-03-09', to: '2031-03-01' }, 'to'],
    ['lie over others', { from: '2031-01-05', to: '2031-01-20' }, 'from'],
    ['are no days', { from: '2031-13-01', to: '2031-13-02' }, 'from'],
    ['are years', { from: '2032-01-01', to: '2039-01-01' }, 'to'],
  ])('that %s are refused beside their field', async (_what, span, field) => {
    await api.post('/api/v1/absences').send({ from: '2031-01-01', to: '2031-01-10' });
    const before = app.store.absences.list();
    const { body } = await api.post('/api/v1/absences').send(span).expect(422);
    expect(body.errors[0].field).toBe(field);
    expect(app.store.absences.list()).toEqual(before);
  });

  it('empty the days they lie on', async () => {
    const { visits, start, absences } = await plan();
    const visit = visits.find(
      ({ day, held, tasks }) =>
        !held && day > plusDays(start, 30) && tasks.every((one) => !one.safety),
    )!;
    const span = { from: plusDays(visit.day, -2), to: plusDays(visit.day, 3) };
    if (absences.some(({ from, to }) => from <= span.to && span.from <= to)) return;
    await api.post('/api/v1/absences').send(span).expect(201);
    for (const { day, done } of (await plan()).visits) {
      if (!done) expect(span.from <= day && day <= span.to).toBe(false);
    }
  });
});

describe('a plan of so many hours', () => {
  beforeAll(anew);
  const take = (rhythms: object[]) => api.put('/api/v1/plan/rhythms').send({ rhythms });

  it('is taken: the bench follows it, and gives way to the rhythms again', async () => {
    const washer = app.store.machines.list().find(({ kind }) => kind === 'front-load-washer')!;
    const rhythm = { machineId: washer.id, task: 'gasket-folds', every: 77, unit: 'loads' };
    const due = async () =>
      (await api.get(`/api/v1/machines/${washer.id}/line`)).body.state.dues as object[];
    const before = await due();
    await take([rhythm]).expect(200);
    expect((await plan()).taken).toBe(1);
    expect(app.store.machines.get(washer.id)!.rules?.['gasket-folds']?.planned).toEqual({
      every: 77,
      unit: 'loads',
    });
    expect(app.store.household.get()!.plan?.asked).toBe(true);
    expect(await due()).not.toEqual(before);
    await take([]).expect(200);
    expect(await due()).toEqual(before);
  });

  it('changes nothing of what keeps people safe', async () => {
    const dryer: Machine = app.store.machines.list().find(({ kind }) => kind === 'vented-dryer')!;
    const { body } = await take([
      { machineId: dryer.id, task: 'duct-run', every: 400, unit: 'days' },
    ]).expect(422);
    expect(body.errors[0].field).toBe('rhythms.0.task');
    expect(app.store.machines.get(dryer.id)!.rules?.['duct-run']?.planned).toBeUndefined();
  });

  it('is not made of work that there is not', async () => {
    const { id } = app.store.machines.list()[0]!;
    await take([{ machineId: id, task: 'nothing', every: 4, unit: 'days' }]).expect(422);
  });
});
