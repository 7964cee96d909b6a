import { TestBed } from '@angular/core/testing';
import { DryingGuideComponent, type Told } from './drying-guide.component';
import { handsOn } from './testing';

const START = Date.UTC(2026, 9, 4, 12);

function show(machineId = 'dryer', units: 'metric' | 'us' = 'metric') {
  const fixture = TestBed.createComponent(DryingGuideComponent);
  fixture.componentRef.setInput('machineId', machineId);
  fixture.componentRef.setInput('units', units);
  let told: Told = { given: {}, spin: undefined };
  fixture.componentInstance.told.subscribe((now) => (told = now));
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const hands = handsOn(host, () => fixture.detectChanges());
  return {
    ...hands,
    fixture,
    told: () => told,
    title: () => host.querySelector('h2')!.textContent,
  };
}

describe('the drying test step by step', () => {
  beforeEach(() => {
    localStorage.clear();
    vi.useFakeTimers({ now: START });
  });
  afterEach(() => vi.useRealTimers());

  it('goes from the dry load to the dried one, and takes the time', () => {
    const { fill, press, title, told, text } = show();
    expect(title()).toBe('Weigh the dry load');
    fill('Dry weight', '3.2');
    press('Next');
    fill('The washer’s spin', '1400');
    press('Next');
    fill('Wet weight', '5,1');
    press('Next');
    press('It starts now');
    vi.setSystemTime(START + 74 * 60_000);
    press('tap when it stops');
    expect(told().given['minutes']).toEqual({ value: 74, unit: 'min' });
    press('Next');
    fill('Weight afterwards', '3.3');
    press('Next');
    expect(text()).toContain('Done');
    expect(told()).toEqual({
      spin: 1400,
      given: {
        dry: { value: 3.2, unit: 'kg' },
        wet: { value: 5.1, unit: 'kg' },
        minutes: { value: 74, unit: 'min' },
        after: { value: 3.3, unit: 'kg' },
      },
    });
  });

  it('goes on where it was after the page was left, the time too', () => {
    const first = show();
    first.fill('Dry weight', '3');
    for (const words of ['Next', 'Next']) first.press(words);
    first.fill('Wet weight', '4.8');
    first.press('Next');
    first.press('It starts now');
    first.fixture.destroy();
    vi.setSystemTime(START + 40 * 60_000);
    const later = show();
    expect(later.title()).toBe('Dry it');
    expect(later.text()).toContain('40 min');
    expect(later.told().given['wet']).toEqual({ value: 4.8, unit: 'kg' });
    // Another dryer's test is its own.
    later.fixture.destroy();
    expect(show('other').title()).toBe('Weigh the dry load');
  });

  it('does not go on with a figure that cannot be, and says what can', () => {
    const { fill, button, text } = show('dryer', 'us');
    expect(button('Next').disabled).toBe(true);
    fill('Dry weight', '400');
    expect(button('Next').disabled).toBe(true);
    expect(text()).toContain('Give a number from 0.441 to 33.1 lb.');
    fill('Dry weight', '7');
    expect(button('Next').disabled).toBe(false);
  });

  it('takes a class of load where nothing was weighed, and can go back', () => {
    const { press, field, told, title } = show();
    press('Towels');
    expect(field('Dry weight').value).toBe('3.5');
    expect(told().given['dry']).toEqual({ value: 3.5, unit: 'kg' });
    press('Next');
    expect(title()).toBe('Wash it');
    press('Back');
    expect(title()).toBe('Weigh the dry load');
    expect(field('Dry weight').value).toBe('3.5');
  });

  it('begins another test from nothing', () => {
    const { press, fill, title, told } = show();
    press('Towels');
    for (const words of ['Next', 'Next']) press(words);
    fill('Wet weight', '5');
    press('Next');
    fill('Time in the dryer', '60');
    press('Next');
    fill('Weight afterwards', '3.6');
    press('Next');
    press('Another test');
    expect(title()).toBe('Weigh the dry load');
    expect(told()).toEqual({ given: {}, spin: undefined });
  });
});
