import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Detergent, HouseholdDraft } from '@needlecase/core';
import DoseComponent from './dose.component';
import { Measuring } from '../parts/measuring';
import { fakeMeasuring, handsOn } from '../parts/testing';

const LIQUID: Detergent = {
  name: 'Liquid',
  unit: 'ml',
  soft: 50,
  medium: 70,
  hard: 90,
  labelLoad: 4.5,
  pack: 1500,
  price: 6,
};
const POWDER: Detergent = { ...LIQUID, name: 'Powder', unit: 'g', actives: ['peroxide'] };

function show(household: Partial<HouseholdDraft> = {}) {
  const measuring = fakeMeasuring({ hardness: 285, ...household });
  TestBed.configureTestingModule({ providers: [provideRouter([])] });
  TestBed.overrideComponent(DoseComponent, {
    set: { providers: [{ provide: Measuring, useValue: measuring.fake }] },
  });
  const fixture = TestBed.createComponent(DoseComponent);
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const hands = handsOn(host, () => fixture.detectChanges());
  return { ...measuring, ...hands, fixture, host };
}

describe('DoseComponent', () => {
  it('keeps another detergent beside those in the house, and shows it', () => {
    const { fill, press, kept, host } = show({ detergents: [LIQUID] });
    press('Another one');
    fill('Its name', 'Powder');
    fill('Its doses are in', 'g');
    fill('Besides soap it has', 'peroxide');
    press('Keep it for the house');
    const [{ change }] = kept as [(typeof kept)[number]];
    expect(change.detergents).toHaveLength(2);
    expect(change.detergents![1]).toMatchObject({
      name: 'Powder',
      unit: 'g',
      actives: ['peroxide'],
    });
    const chosen = host.querySelector('.choices [aria-pressed="true"]')!;
    expect(chosen.textContent).toContain('Powder');
  });

  it('asks for a name, and for another one than is there already', () => {
    const { fill, press, kept, text } = show({ detergents: [LIQUID] });
    press('Another one');
    press('Keep it for the house');
    expect(text()).toContain('Give it a name.');
    fill('Its name', 'Liquid');
    press('Keep it for the house');
    expect(text()).toContain('There is a “Liquid” already.');
    expect(kept).toEqual([]);
  });

  it('takes one away, and brings it back beside what came since', () => {
    const { press, kept, fake } = show({ detergents: [LIQUID, POWDER] });
    press('Powder');
    press('Take it away');
    expect(kept[0]!.change).toEqual({ detergents: [LIQUID] });
    const other = { ...LIQUID, name: 'Other' };
    fake.bench.update((now) => ({
      ...now!,
      household: { ...now!.household, detergents: [LIQUID, other] },
    }));
    expect(kept[0]!.undo!()).toEqual({ detergents: [LIQUID, other, POWDER] });
  });

  it('warns of what must never meet what is in it', () => {
    const { press, text } = show({ detergents: [LIQUID, POWDER] });
    expect(text()).not.toContain('never with');
    press('Powder');
    expect(text()).toContain('never with vinegar (acetic acid)');
  });

  it('leaves alone what is typed when the same house arrives again', () => {
    const { fill, field, again, fixture, text } = show({ detergents: [LIQUID] });
    fill('Dry wash', '6');
    fill('You pour today', '120');
    fill('Dose, hard water', '100');
    const before = text();
    again();
    fixture.detectChanges();
    expect(field('Dry wash').value).toBe('6');
    expect(field('You pour today').value).toBe('120');
    expect(field('Dose, hard water').value).toBe('100');
    expect(text()).toBe(before);
  });

  it('takes the hardness from a strip’s class', () => {
    const { press, field, text } = show({ detergents: [LIQUID] });
    expect(text()).toContain('85 ml');
    press('soft');
    expect(field('Hardness').value).toBe('1.681');
    expect(text()).toContain('47 ml');
  });

  it('tells beside the field what a wrong figure may be', () => {
    const { fill, text, field } = show({ detergents: [LIQUID] });
    fill('You pour today', '-4');
    expect(text()).toContain('Give a number from 0 to 1000.');
    expect(field('You pour today').getAttribute('aria-invalid')).toBe('true');
    fill('You pour today', '');
    fill('Density', '9');
    expect(text()).toContain('Give a number from 0.2 to 2 g/ml.');
  });
});
