import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { SCHOOLS, type HouseholdDraft, type SchoolsView } from '@needlecase/core';
import { of } from 'rxjs';
import { HouseholdService } from '../data/household.service';
import { SchoolsComponent } from './schools.component';

function draw(change: Partial<SchoolsView['schools'][number]> = {}, currency?: string) {
  const stored: HouseholdDraft[] = [];
  const view = {
    household: { id: 'h', version: 3, school: 'steady', ...(currency ? { currency } : {}) },
    schools: SCHOOLS.map((school, i) => ({
      school,
      visits: 40 - 8 * i,
      hands: 600,
      waiting: 1200,
      supplies: {},
      chance: 0.034,
      timesPast: 2.6,
      calendar: [
        { day: 30, hands: 20 },
        { day: 200, hands: 90 },
      ],
      money: 41.4,
      unpriced: 0,
      ...change,
    })),
  } as unknown as SchoolsView;
  const service = {
    schools: () => of(view),
    saveHousehold: (draft: HouseholdDraft) => (stored.push(draft), of(view.household)),
  };
  TestBed.configureTestingModule({
    providers: [provideRouter([]), { provide: HouseholdService, useValue: service }],
  });
  const fixture = TestBed.createComponent(SchoolsComponent);
  fixture.detectChanges();
  return { host: fixture.nativeElement as HTMLElement, stored };
}

const text = (host: HTMLElement, selector: string) =>
  host.querySelector(selector)!.textContent.replace(/\s+/g, ' ').trim();

describe('SchoolsComponent', () => {
  it('sets visits, hours, waiting, lateness and money side by side', () => {
    const { host } = draw({}, 'EUR');
    expect(host.querySelectorAll('.school')).toHaveLength(4);
    expect(
      [...host.querySelectorAll('.school:first-of-type dd')].map((one) => one.textContent),
    ).toEqual(['40', '10', '20', '2.6', expect.stringMatching(/41/) as string]);
    expect(host.textContent).toContain('In 3 of 100 cleanings');
  });

  it('draws each visit as a stitch, longer where it takes longer', () => {
    const { host } = draw();
    const [short, long] = [...host.querySelectorAll('.school:first-of-type .stitch')].map((one) => {
      const [, from, to] = /M[\d.]+ ([\d.]+)V([\d.]+)/.exec(one.getAttribute('d')!)!;
      return Number(to) - Number(from);
    });
    expect(long!).toBeGreaterThan(short!);
  });

  it('marks the one in force, and names the safety tasks that another leaves longer', () => {
    const { host } = draw();
    expect(text(host, '.school.chosen')).toContain('This house keeps to it.');
    expect(text(host, '.school.chosen')).not.toContain('safety tasks');
    expect(host.textContent).toContain('longer than steady: look over the transition hose');
  });

  it('keeps the house to another, with all else as it was', () => {
    const { host, stored } = draw();
    host.querySelector<HTMLButtonElement>('button[aria-label="Keep to Stretch"]')!.click();
    expect(stored).toEqual([{ school: 'stretch' }]);
  });

  it('says so where prices are not known', () => {
    expect(text(draw({ money: 0, unpriced: 4 }).host, '.money dd')).toBe('no prices known');
    TestBed.resetTestingModule();
    expect(text(draw({ money: 12, unpriced: 2 }).host, '.money dd')).toBe(
      '12 and 2 without a price',
    );
  });
});
