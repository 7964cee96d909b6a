import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import {
  SUPPLIES,
  type Household,
  type HouseholdDraft,
  type Machine,
  type MachineDraft,
  type Supply,
  type SupplyDraft,
} from '@needlecase/core';
import { of, throwError, type Observable } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { SuppliesService } from '../data/supplies.service';
import { formOn } from '../forms/testing';
import { HouseholdCardComponent } from './household-card.component';
import { MachineCardComponent } from './machine-card.component';
import { SupplyFormComponent } from './supply-form.component';

/* The forms of the house: what they store, what they refuse beside which field, what they leave alone. */

const HOUSE: Household = {
  id: 'h',
  version: 3,
  name: 'Kiln Lane House',
  zone: 'Europe/Vienna',
  units: 'metric',
  hardness: 285,
  school: 'steady',
  risk: 0.125,
  visitMinutes: 90,
  currency: 'EUR',
  multipliers: { pets: 2 },
  energyPrice: 0.31,
  detergents: [{ name: 'Gel', unit: 'ml', soft: 50, medium: 70, hard: 90, labelLoad: 4.5 }],
};
const DRYER: Machine = {
  id: 'm1',
  version: 7,
  name: 'Cellar dryer',
  kind: 'vented-dryer',
  maker: 'Tarnhollow',
  place: 'Cellar',
  features: {
    energy: 'electric',
    ventPath: 'up',
    riser: 'yes',
    screenWell: 'yes',
    blowerAccess: 'unknown',
    sensor: 'yes',
    stacked: 'no',
    room: 'unheated',
    elbows: 2,
    heater: 2500,
  },
  habits: ['pets'],
  loadsPerWeek: 4,
  inUseSince: '2020-01-01',
  school: 'often',
  rules: { 'duct-run': { school: 'stretch', acknowledged: true } },
};
const VINEGAR: Supply = {
  id: 's1',
  version: 2,
  item: 'vinegar',
  name: 'Vinegar',
  unit: 'ml',
  pack: 1000,
  price: 0.8,
  putAway: true,
};
const bare = <T extends { id: string; version: number }>({ id: _id, version: _v, ...rest }: T) =>
  rest;

let stored: { draft: HouseholdDraft | MachineDraft | SupplyDraft; version: number | undefined }[];
let answer: (record: object) => Observable<never>;

beforeEach(() => {
  stored = [];
  answer = (record) => of(record) as unknown as Observable<never>;
  const keep = (draft: (typeof stored)[number]['draft'], version?: number) => {
    stored.push({ draft, version });
    return answer(draft);
  };
  const households = {
    saveHousehold: keep,
    saveMachine: (_id: string, draft: MachineDraft, version: number) => keep(draft, version),
    addMachine: (draft: MachineDraft) => keep(draft),
  };
  const supplies = {
    change: ({ version }: Supply, draft: SupplyDraft) => keep(draft, version),
    keep: (draft: SupplyDraft) => keep(draft),
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: HouseholdService, useValue: households },
      { provide: SuppliesService, useValue: supplies },
    ],
  });
});

const refused = (errors: { field: string; message: string }[]) => () =>
  throwError(() => new ApiProblem(422, 'Something here needs another look.', '', errors));
const clash = (current: object) => () =>
  throwError(() => new ApiProblem(409, 'This was changed elsewhere.', '', [], current));

describe('the household’s form', () => {
  function open(house = HOUSE) {
    const fixture = TestBed.createComponent(HouseholdCardComponent);
    fixture.componentRef.setInput('household', house);
    const form = formOn(fixture);
    form.press('Change');
    return form;
  }

  it('stored as it is, changes nothing, what it does not ask included', () => {
    open().send();
    expect(stored).toEqual([{ draft: bare(HOUSE), version: 3 }]);
  });

  it('changes what it asks, and empties what is taken out', () => {
    const form = open();
    form.fill('Name of the household', 'Loom House');
    form.fill('Water hardness', '');
    form.fill('Money', 'usd');
    form.send();
    const { hardness: _gone, ...rest } = bare(HOUSE);
    expect(stored[0]!.draft).toEqual({ ...rest, name: 'Loom House', currency: 'USD' });
  });

  it.each([
    ['Name of the household', '', 'Write something here.'],
    ['Accepted chance', '55', 'Give a number from 2 to 30.'],
    ['Money', 'E', 'Give the three letters of your money, such as EUR.'],
    ['Minutes at work', '5', 'Give a number from 10 to 600.'],
  ])('refuses %s of “%s” beside it, and stores nothing', (label, value, message) => {
    const form = open();
    form.fill(label, value);
    form.send();
    expect(form.wrong()).toEqual([message]);
    expect(stored).toEqual([]);
  });

  it('shows both versions where it was changed elsewhere, and keeps what that added', () => {
    const theirs = { ...HOUSE, version: 4, energyPrice: 0.4 };
    answer = clash(theirs);
    const form = open();
    form.fill('Name of the household', 'Loom House');
    form.send();
    answer = (record) => of(record) as unknown as Observable<never>;
    form.press('Keep yours');
    expect(stored[1]).toEqual({
      draft: { ...bare(theirs), name: 'Loom House' },
      version: 4,
    });
  });
});

describe('a machine’s form', () => {
  function open(machine: Machine | undefined = DRYER) {
    const fixture = TestBed.createComponent(MachineCardComponent);
    fixture.componentRef.setInput('machine', machine);
    const form = formOn(fixture);
    if (machine) form.press(`Change ${machine.name}`);
    return form;
  }

  it('stored as it is, changes nothing, its rules included', () => {
    open().send();
    expect(stored).toEqual([{ draft: bare(DRYER), version: 7 }]);
  });

  it('leaves rules of tasks away that another kind does not have', () => {
    const form = open();
    form.fill('What is it?', 'condenser-dryer');
    form.send();
    expect(stored[0]!.draft).not.toHaveProperty('rules');
    expect((stored[0]!.draft as MachineDraft).features).not.toHaveProperty('elbows');
  });

  it.each([
    ['Your name for it', '', 'Write something here.'],
    ['Elbows in the duct', '99', 'Give a number from 0 to 20.'],
    ['Loads in a usual week', '', 'Give a number.'],
  ])('refuses %s of “%s” beside it, and stores nothing', (label, value, message) => {
    const form = open();
    form.fill(label, value);
    form.send();
    expect(form.wrong()).toEqual([message]);
    expect(stored).toEqual([]);
  });

  it('says beside the field what only the server can see', () => {
    answer = refused([{ field: 'place', message: 'No such place.' }]);
    const form = open();
    form.send();
    expect(form.wrong()).toContain('No such place.');
  });
});

describe('a supply’s form', () => {
  function open(supply?: Supply) {
    const fixture = TestBed.createComponent(SupplyFormComponent);
    if (supply) fixture.componentRef.setInput('supply', supply);
    fixture.componentRef.setInput('offered', SUPPLIES.slice(0, 3));
    return formOn(fixture);
  }

  it('stored as it is, changes nothing, put away or not', () => {
    open(VINEGAR).send();
    expect(stored).toEqual([{ draft: bare(VINEGAR), version: 2 }]);
  });

  it('empties a price that is taken out', () => {
    const form = open(VINEGAR);
    form.fill('Price of a pack', '');
    form.send();
    expect(stored[0]!.draft).not.toHaveProperty('price');
  });

  it('fills in what is usual of the kind that is chosen', () => {
    const form = open();
    const { id, name, unit, pack } = SUPPLIES[1]!;
    form.fill('What is it?', id);
    form.send();
    expect(stored[0]!.draft).toEqual({ item: id, name, unit, pack });
  });

  it('makes an id of its own for something else, and refuses a pack of nothing', () => {
    const form = open();
    form.fill('What is it?', 'own');
    form.fill('Your name for it', 'Pads');
    form.fill('Content of a pack', '0');
    form.send();
    expect(form.wrong()).toEqual(['Give a number above 0, up to 100000.']);
    form.fill('Content of a pack', '10');
    form.send();
    expect(stored[0]!.draft).toMatchObject({ name: 'Pads', unit: 'pieces', pack: 10 });
    expect((stored[0]!.draft as SupplyDraft).item).toMatch(/^own-/);
  });
});
