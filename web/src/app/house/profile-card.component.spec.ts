import { TestBed } from '@angular/core/testing';
import type { Household, HouseholdDraft, Machine } from '@needlecase/core';
import { of, throwError } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { HouseholdService } from '../data/household.service';
import { ProfileCardComponent } from './profile-card.component';

const household: Household = {
  id: 'h',
  version: 2,
  name: 'House',
  zone: 'UTC',
  units: 'metric',
  hardness: 285,
  school: 'steady',
  risk: 0.1,
};
const washer: Machine = {
  id: 'm1',
  version: 1,
  name: 'Cellar washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: ['pets'],
  loadsPerWeek: 5,
};

function draw(house: Household = household, machines = [washer], problem?: ApiProblem) {
  const stored: HouseholdDraft[] = [];
  const saveHousehold = (draft: HouseholdDraft) => (
    stored.push(draft),
    problem ? throwError(() => problem) : of(house)
  );
  TestBed.configureTestingModule({
    providers: [{ provide: HouseholdService, useValue: { saveHousehold } }],
  });
  const fixture = TestBed.createComponent(ProfileCardComponent);
  fixture.componentRef.setInput('household', house);
  fixture.componentRef.setInput('machines', machines);
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const set = (index: number, value: string) => {
    const field = host.querySelectorAll<HTMLInputElement>('input')[index]!;
    field.value = value;
    field.dispatchEvent(new Event('change'));
    fixture.detectChanges();
  };
  return { host, stored, set };
}

describe('ProfileCardComponent', () => {
  it('shows what acts in this house, on which tasks, and how much', () => {
    const { host } = draw();
    const rows = [...host.querySelectorAll('li')].map((row) =>
      row.textContent.replace(/\s+/g, ' '),
    );
    expect(rows).toHaveLength(2);
    expect(rows.find((row) => row.includes('A pet that sheds'))).toContain(
      'clean the gasket folds, clean the pump filter',
    );
    const pets = [...host.querySelectorAll('input')].map((field) => field.placeholder);
    expect(pets).toContain('1.5');
  });

  it('is not there where nothing speeds anything up', () => {
    const { hardness: _soft, ...soft } = household;
    expect(draw(soft, [{ ...washer, habits: [] }]).host.textContent.trim()).toBe('');
  });

  it('stores an own figure, and takes the usual one again when it is emptied', () => {
    const { host, stored, set } = draw({ ...household, multipliers: { pets: 3 } });
    const index = [...host.querySelectorAll('input')].findIndex(({ value }) => value === '3');
    set(index, '2.5');
    set(index, '');
    expect(stored.map(({ multipliers }) => multipliers)).toEqual([{ pets: 2.5 }, undefined]);
  });

  it.each(['0', '9', 'much'])('stores nothing for “%s” and says what is accepted', (typed) => {
    const { host, stored, set } = draw();
    set(0, typed === 'much' ? '-1' : typed);
    expect(stored).toEqual([]);
    expect(host.querySelector('.field-problem')!.textContent).toContain('from 1 to 5');
  });

  it('says beside the field what the server would not take', () => {
    const { host, set } = draw(household, [washer], new ApiProblem(409, 'Changed elsewhere.', ''));
    set(0, '2');
    expect(host.querySelector('.field-problem')!.textContent).toContain('Changed elsewhere.');
  });
});
