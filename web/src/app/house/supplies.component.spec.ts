import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { SuppliesView, Supply, SupplyState } from '@needlecase/core';
import { NEVER, of, throwError } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { EntriesService } from '../data/entries.service';
import { SuppliesService } from '../data/supplies.service';
import { ToastsService } from '../data/toasts.service';
import { SuppliesComponent } from './supplies.component';

const supply = (change: Partial<Supply> = {}): Supply => ({
  id: 's1',
  version: 1,
  item: 'vinegar',
  name: 'Vinegar',
  unit: 'ml',
  pack: 1000,
  ...change,
});
const state = (change: Partial<SupplyState> = {}): SupplyState => ({
  supply: supply(),
  left: 500,
  perYear: 900,
  uses: [{ task: 'pump-filter', name: 'Clean the pump filter', amount: 250, share: 0.3, times: 2 }],
  buy: 'no',
  ...change,
});

function draw(supplies: SupplyState[], problem?: ApiProblem) {
  const noted: [string, string, number][] = [];
  const view = {
    household: { zone: 'UTC', currency: 'EUR' },
    machines: [{ id: 'm1', name: 'Cellar washer' }],
    supplies,
  } as unknown as SuppliesView;
  const service = {
    all: () => (problem ? throwError(() => problem) : of(view)),
    note: (kind: string, { item }: Supply, value: number) => (
      noted.push([kind, item, value]),
      of({ id: 'e1' })
    ),
    change: (one: Supply, change: Partial<Supply>) => of({ ...one, ...change }),
  };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      { provide: SuppliesService, useValue: service },
      { provide: EntriesService, useValue: { undo: () => of({}) } },
      { provide: ChangesService, useValue: { of: () => NEVER } },
    ],
  });
  const fixture = TestBed.createComponent(SuppliesComponent);
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const press = (label: string) => {
    const all = [...host.querySelectorAll<HTMLButtonElement>('button')];
    all
      .find((one) => one.getAttribute('aria-label') === label || one.textContent.trim() === label)!
      .click();
    fixture.detectChanges();
  };
  return { host, noted, press, fixture };
}

describe('SuppliesComponent', () => {
  it('lists what has to be bought, and before what', () => {
    const runsOut = {
      on: '2000-01-01',
      task: 'pump-filter',
      name: 'Clean the pump filter',
      machineId: 'm1',
    };
    const { host, noted, press } = draw([state({ left: 20, buy: 'now', runsOut })]);
    expect(host.querySelector('.list')!.textContent).toContain(
      'Runs out now: clean the pump filter, Cellar washer.',
    );
    press('Bought: Vinegar');
    expect(noted).toEqual([['bought', 'vinegar', 1000]]);
    expect(TestBed.inject(ToastsService).shown().at(-1)!.text).toBe('Vinegar: a pack came in');
  });

  it('says for how many times it is enough', () => {
    const { host } = draw([state()]);
    expect(host.textContent).toContain('Enough for 2 × clean the pump filter.');
    expect(host.textContent).toContain('Lasts the year ahead.');
    expect(host.querySelector('.fill')!.getAttribute('height')).toBe('18');
  });

  it('says what is empty, what was never counted, and what no task uses', () => {
    const { host } = draw([
      state({ left: 0 }),
      state({ supply: supply({ id: 's2', name: 'Soda', item: 'baking-soda' }), uses: [] }),
    ]);
    expect(host.textContent).toContain('Used up.');
    expect(host.textContent).toContain('No task uses it; it is kept as a part.');
    const { left: _left, ...never } = state();
    TestBed.resetTestingModule();
    expect(draw([never]).host.textContent).toContain('Not counted yet.');
  });

  it.each(['lots', '', '-3', '9999999'])('counts nothing for “%s” and says why', (typed) => {
    const { host, noted, press, fixture } = draw([state()]);
    press('Count: Vinegar');
    host.querySelector<HTMLInputElement>('.acts input')!.value = typed;
    press('Store');
    fixture.detectChanges();
    expect(noted).toEqual([]);
    expect(host.querySelector('.field-problem')!.textContent).toContain('from 0 to 1000000');
  });

  it('takes a decimal comma for a count', () => {
    const { host, noted, press } = draw([state()]);
    press('Count: Vinegar');
    host.querySelector<HTMLInputElement>('.acts input')!.value = '12,5';
    press('Store');
    expect(noted).toEqual([['stock', 'vinegar', 12.5]]);
  });

  it('teaches what to do first, and says what went wrong', () => {
    expect(draw([]).host.textContent).toContain('You keep no supplies here yet.');
    TestBed.resetTestingModule();
    const { host } = draw([], new ApiProblem(0, 'The server cannot be reached.', 'Try later.'));
    expect(host.querySelector('[role=alert]')!.textContent).toContain('cannot be reached');
  });

  it('undoes what was put away', () => {
    const { press } = draw([state()]);
    const toasts = TestBed.inject(ToastsService);
    press('Put away: Vinegar');
    expect(toasts.shown().at(-1)!.text).toBe('Vinegar is put away.');
    toasts.shown().at(-1)!.action!.do();
    expect(toasts.shown().at(-1)!.text).toBe('Vinegar is back.');
  });
});
