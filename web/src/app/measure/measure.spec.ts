import { TestBed } from '@angular/core/testing';
import { numberOf } from '../forms/number-of';
import { FiguresComponent } from './parts/figures.component';
import { BandComponent } from './parts/band.component';
import { StopwatchComponent } from './parts/stopwatch.component';
import { drawRun } from './parts/vent-draw';
import {
  BAG_FIELDS,
  hoodAirByBag,
  USUAL_BLOWER,
  ventRun,
  type Amount,
  type VentPiece,
  type VentRun,
} from '@needlecase/core';
import { attempt } from './parts/attempt';

const hostOf = (fixture: { nativeElement: unknown }) => fixture.nativeElement as HTMLElement;

describe('numberOf', () => {
  it.each<[string, number]>([
    ['2.5', 2.5],
    [' 2,5 ', 2.5],
    ['-3', -3],
    ['.5', 0.5],
    ['', NaN],
    ['2 5', NaN],
    ['1e9', NaN],
    ['soon', NaN],
  ])('reads “%s” as %s', (text, wanted) => {
    expect(numberOf(text)).toEqual(wanted);
  });
});

describe('FiguresComponent', () => {
  function show(units: 'metric' | 'us') {
    const fixture = TestBed.createComponent(FiguresComponent);
    fixture.componentRef.setInput('fields', BAG_FIELDS);
    fixture.componentRef.setInput('units', units);
    fixture.componentRef.setInput('first', { bag: { value: 113, unit: 'L' } });
    let given: Record<string, Amount> = {};
    fixture.componentInstance.given.subscribe((all) => {
      given = all;
      const { problems } = attempt(() => hoodAirByBag(all));
      fixture.componentRef.setInput('problems', problems);
    });
    fixture.detectChanges();
    const host = hostOf(fixture);
    const inputs = () => [...host.querySelectorAll('input')];
    const type = (at: number, text: string) => {
      const field = inputs()[at]!;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      fixture.detectChanges();
    };
    return { fixture, host, inputs, type, given: () => given };
  }

  it('shows what stands there in the household’s units', () => {
    expect(show('metric').inputs()[0]!.value).toBe('113');
    expect(show('us').inputs()[0]!.value).toBe('29.85');
  });

  it('tells the range beside the field at fault, and only there', () => {
    const { host, type, given } = show('metric');
    type(1, '900');
    const [problem, ...more] = [...host.querySelectorAll('.field-problem')];
    expect(more).toEqual([]);
    expect(problem!.textContent).toContain('Give a number from 0.3 to 120 s.');
    expect(host.querySelectorAll('[aria-invalid]')).toHaveLength(1);
    type(1, '2');
    expect(host.querySelector('.field-problem')).toBeNull();
    expect(given()).toEqual({ bag: { value: 113, unit: 'L' }, seconds: { value: 2, unit: 's' } });
  });

  it('turns a figure into another unit without changing what it means', () => {
    const { host, fixture, inputs, given } = show('metric');
    const unit = host.querySelector('select')!;
    unit.value = 'gal';
    unit.dispatchEvent(new Event('change'));
    fixture.detectChanges();
    expect(inputs()[0]!.value).toBe('29.8514');
    expect(given()['bag']).toEqual({ value: 29.8514, unit: 'gal' });
  });
});

describe('BandComponent', () => {
  it('draws no needle where there is no figure', () => {
    const fixture = TestBed.createComponent(BandComponent);
    fixture.componentRef.setInput('label', 'Air');
    fixture.componentRef.setInput('most', 10);
    fixture.componentRef.setInput('good', { from: 4, to: 8, say: 'healthy' });
    fixture.componentRef.setInput('value', null);
    fixture.detectChanges();
    expect(hostOf(fixture).querySelector('.needle')).toBeNull();
    fixture.componentRef.setInput('value', 20);
    fixture.componentRef.setInput('said', '20 L/s');
    fixture.detectChanges();
    expect(hostOf(fixture).querySelector('.value')!.textContent).toContain('20 L/s');
    expect(hostOf(fixture).querySelector('.needle')!.getAttribute('d')).toContain('M546');
  });
});

describe('StopwatchComponent', () => {
  it('is started by one tap and stopped by the next, and tells the seconds once', () => {
    vi.useFakeTimers();
    const fixture = TestBed.createComponent(StopwatchComponent);
    const stopped: number[] = [];
    fixture.componentInstance.stopped.subscribe((seconds) => stopped.push(seconds));
    fixture.detectChanges();
    const button = hostOf(fixture).querySelector('button')!;
    const tap = () => button.dispatchEvent(new Event('pointerdown'));
    tap();
    vi.advanceTimersByTime(4300);
    tap();
    fixture.detectChanges();
    expect(stopped).toEqual([4.3]);
    expect(hostOf(fixture).textContent).toContain('4.3 s');
    vi.useRealTimers();
  });
});

describe('drawRun', () => {
  const run = (...pieces: VentPiece[]): VentRun => ({
    pieces,
    material: 'smooth-metal',
    diameter: 0.1,
    lining: 0,
    temperature: 60,
    blower: USUAL_BLOWER,
  });
  it('draws a rise up, to scale', () => {
    const { pieces } = run(
      { is: 'straight', length: 1, direction: 'level' },
      { is: 'elbow', angle: 90, radius: '4-in' },
      { is: 'straight', length: 3, direction: 'up' },
      { is: 'hood', state: 'free', screened: false },
    );
    const sheet = { width: 800, height: 400, labels: true };
    const drawn = drawRun(pieces, ventRun(run(...pieces)), [], sheet);
    const ends = (i: number) =>
      [...drawn.pieces[i]!.d.matchAll(/[ML]([\d.]+),([\d.]+)/g)].map(([, x, y]) => [
        Number(x),
        Number(y),
      ]);
    const [level, rise] = [ends(0), ends(2)];
    const metre = level[1]![0]! - level[0]![0]!;
    expect(rise[1]![0]).toBeCloseTo(rise[0]![0]!, 1);
    expect((rise[0]![1]! - rise[1]![1]!) / metre).toBeCloseTo(3, 1);
    expect(drawn.pieces[0]!.low).toBe(true);
  });
});
