import { TestBed } from '@angular/core/testing';
import { stationById, taskById, type Machine, type MachineDraft } from '@needlecase/core';
import { of, throwError, type Observable } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { HouseholdService } from '../data/household.service';
import { ToastsService } from '../data/toasts.service';
import { formOn } from '../forms/testing';
import { OwnTaskComponent } from './own-task.component';
import { RuleEditorComponent } from './rule-editor.component';

/* A household's own tasks and own intervals: what is stored with the machine, and what is refused. */

const OWN = {
  id: 'own-1',
  name: 'Empty the clay trap',
  station: 'drain-hose',
  every: 2,
  unit: 'months' as const,
  minutes: 15,
  unplugged: true,
  reason: 'Clay settles.',
  steps: ['Open it.', 'Scrape it out.'],
};
const WASHER: Machine = {
  id: 'm1',
  version: 5,
  name: 'Studio washer',
  kind: 'front-load-washer',
  place: 'Studio',
  features: {},
  habits: [],
  loadsPerWeek: 5,
  rules: { dispenser: { off: true } },
  ownTasks: [OWN],
};
const DRYER: Machine = { ...WASHER, id: 'm2', kind: 'vented-dryer', rules: {}, ownTasks: [] };

let stored: { draft: MachineDraft; version: number }[];
let answer: () => Observable<object>;
let refreshed: number;

beforeEach(() => {
  stored = [];
  refreshed = 0;
  answer = () => of({});
  const saveMachine = (_id: string, draft: MachineDraft, version: number) => {
    stored.push({ draft, version });
    return answer();
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: HouseholdService, useValue: { saveMachine } },
      { provide: BenchService, useValue: { refresh: () => refreshed++, bench$: of(undefined) } },
    ],
  });
});

describe('an own task', () => {
  function open(own?: typeof OWN) {
    const fixture = TestBed.createComponent(OwnTaskComponent);
    fixture.componentRef.setInput('machine', WASHER);
    fixture.componentRef.setInput('station', stationById('gasket'));
    if (own) fixture.componentRef.setInput('own', own);
    const form = formOn(fixture);
    form.host.querySelector<HTMLButtonElement>('button')!.click();
    fixture.detectChanges();
    return form;
  }

  it('is added beside the others, with its steps a line each', () => {
    const form = open();
    form.fill('What is done', 'Oil the hinge');
    form.fill('Every', '3');
    form.fill('Steps', 'One drop.\n\n Wipe it off. \n');
    form.send();
    const [{ draft, version }] = stored as [(typeof stored)[0]];
    expect(version).toBe(5);
    expect(draft.rules).toEqual(WASHER.rules);
    expect(draft.ownTasks).toHaveLength(2);
    expect(draft.ownTasks![1]).toMatchObject({
      name: 'Oil the hinge',
      station: 'gasket',
      every: 3,
      unit: 'months',
      steps: ['One drop.', 'Wipe it off.'],
    });
    expect(refreshed).toBe(1);
  });

  it('stored as it is, stays as it is, at its station', () => {
    open(OWN).send();
    expect(stored[0]!.draft.ownTasks).toEqual([OWN]);
  });

  it.each([
    ['What is done', '', 'Write something here.'],
    ['Every', '0', 'Give a number from 1 to 5000.'],
    ['Steps', ' \n ', 'Write at least one step; each has at most 400 characters.'],
  ])('refuses %s of “%s” beside it, and stores nothing', (label, value, message) => {
    const form = open(OWN);
    form.fill(label, value);
    form.send();
    expect(form.wrong()).toEqual([message]);
    expect(stored).toEqual([]);
  });

  it('says what went wrong, and reads the machine again', () => {
    answer = () => throwError(() => new ApiProblem(409, 'This was changed elsewhere.', ''));
    const form = open(OWN);
    form.send();
    expect(form.text()).toContain('This was changed elsewhere.');
    expect(refreshed).toBe(1);
  });
});

describe('an interval of one’s own', () => {
  function open(task: string, machine = WASHER) {
    const fixture = TestBed.createComponent(RuleEditorComponent);
    fixture.componentRef.setInput('machine', machine);
    fixture.componentRef.setInput('task', taskById(task));
    const form = formOn(fixture);
    form.press('Change this interval');
    return form;
  }

  it('is what the manual says, with where it says so', () => {
    const form = open('pump-filter');
    form.fill('Interval', 'own');
    form.fill('Every', '40');
    form.fill('Unit', 'loads');
    form.fill('Where it says so', 'page 12');
    form.send();
    expect(stored[0]!.draft.rules).toEqual({
      dispenser: { off: true },
      'pump-filter': { own: { every: 40, unit: 'loads', source: 'page 12' } },
    });
    expect(stored[0]!.draft.ownTasks).toEqual([OWN]);
  });

  it('refuses a figure of nothing beside it', () => {
    const form = open('pump-filter');
    form.fill('Interval', 'own');
    form.fill('Every', '0');
    form.send();
    expect(form.wrong()).toEqual(['Give a number from 1 to 5000.']);
    expect(stored).toEqual([]);
  });

  it('asks twice before a safety task is loosened, and marks that it was told', () => {
    const form = open('duct-run', DRYER);
    form.fill('Interval', 'off');
    form.send();
    expect(stored).toEqual([]);
    form.send();
    expect(stored[0]!.draft.rules).toEqual({ 'duct-run': { off: true, acknowledged: true } });
  });

  it('goes back to the household’s', () => {
    const form = open('dispenser');
    form.fill('Interval', 'house');
    form.send();
    expect(stored[0]!.draft.rules).toEqual({});
  });

  it('is undone alone, onto what others changed meanwhile', () => {
    answer = () => of({ ...WASHER, ...stored.at(-1)!.draft, version: 6 });
    const form = open('dispenser');
    form.fill('Interval', 'house');
    form.send();
    const undo = TestBed.inject(ToastsService).shown().at(-1)!;
    expect(undo.text).toContain('the interval is stored');
    const theirs = { ...WASHER, name: 'Loft washer', rules: { gasket: { off: true } }, version: 9 };
    answer = () => {
      answer = () => of(theirs);
      return throwError(() => new ApiProblem(409, 'This was changed elsewhere.', '', [], theirs));
    };
    undo.action!.do();
    expect(stored.at(-1)).toMatchObject({
      version: 9,
      draft: { name: 'Loft washer', rules: { gasket: { off: true }, dispenser: { off: true } } },
    });
    expect(TestBed.inject(ToastsService).shown().at(-1)!.text).toContain('as it was');
  });
});
