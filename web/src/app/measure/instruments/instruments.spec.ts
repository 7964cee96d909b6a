import type { Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Entry, UnitSystem } from '@needlecase/core';
import DrainTestComponent from './drain-test.component';
import DryingTestComponent from './drying-test.component';
import ExhaustAirComponent from './exhaust-air.component';
import FillFlowComponent from './fill-flow.component';
import HoodAirComponent from './hood-air.component';
import LevelComponent from './level.component';
import LintScreenComponent from './lint-screen.component';
import { Measuring } from '../parts/measuring';
import MixComponent from './mix.component';
import MoistureSensorComponent from './moisture-sensor.component';
import RepairOrReplaceComponent from './repair-or-replace.component';
import RunningCostComponent from './running-cost.component';
import ScaleComponent from './scale.component';
import StandpipeComponent from './standpipe.component';
import { fakeMeasuring, handsOn } from '../parts/testing';
import TubWaterComponent from './tub-water.component';

interface Instrument {
  component: Type<unknown>;
  /** What is pressed and typed, in order; a text after “press:” is a button's. */
  done: Record<string, string>;
  /** Something that stands on the screen then. */
  says: string;
  keep?: string;
  saves?: Partial<Entry>[];
  /** A field, what nobody can mean, and what is said beside it. */
  bad?: [field: string, value: string, message: string];
}

const INSTRUMENTS: Record<string, Instrument> = {
  'air at the hood': {
    component: HoodAirComponent,
    done: { 'Time until it is taut': '2' },
    says: '56.5 L/s',
    keep: 'Keep this reading',
    saves: [{ kind: 'reading', station: 'hood', quantity: 'bag-fill-time', value: 2, unit: 's' }],
    bad: ['The bag holds', '0', 'Give a number from'],
  },
  'water in the exhaust': {
    component: ExhaustAirComponent,
    done: {
      'Temperature of the room': '20',
      'Temperature at the hood': '55',
      'Humidity at the hood': '40',
    },
    says: 'g',
    keep: 'Keep this reading',
    // 103 g/min of the worked example: room 20 °C 50 %, exhaust 55 °C 40 %, 0.05 m³/s (PsychroLib).
    saves: [{ kind: 'reading', station: 'hood', quantity: 'exhaust-water', value: 103 }],
    bad: ['Humidity at the hood', '140', 'Give a number from'],
  },
  'water on the lint screen': {
    component: LintScreenComponent,
    done: { 'press:Water stands on': '' },
    says: '85 %',
    keep: 'Keep it as a look at the screen',
    saves: [{ kind: 'opened', task: 'lint-screen-wash', grade: 4 }],
    bad: ['Time until the cup', '-3', 'Give a number from'],
  },
  'moisture sensor': {
    component: MoistureSensorComponent,
    done: { 'press:over range': '' },
    says: 'one on each strip',
  },
  'running cost': {
    component: RunningCostComponent,
    done: { 'Air now': '15', 'Air when clean': '60' },
    says: 'kWh',
    bad: ['Air now', '90', 'Give at most the air of the clean way.'],
  },
  'repair or replace': {
    component: RepairOrReplaceComponent,
    done: { 'The repair would cost': '150', 'It has run': '5', 'A new one costs': '660' },
    says: 'The repair costs less a year.',
    bad: ['The repair would cost', '-1', 'Give a number from 0'],
  },
  'water in the tub': {
    component: TubWaterComponent,
    done: { 'Height of the water': '20', 'Radius of the drum': '26', 'Depth of the drum': '35' },
    says: '26.3 L',
    keep: 'Keep it in the record',
    saves: [{ kind: 'reading', station: 'tub', quantity: 'standing-water', value: 26.3 }],
    bad: ['Height of the water', '60', 'Give a number from 0 to 52 cm'],
  },
  'drain test': {
    component: DrainTestComponent,
    done: { 'Water in the drum': '15', 'Time until it is empty': '60' },
    says: '15 L/min',
    keep: 'Keep this reading',
    saves: [{ kind: 'reading', quantity: 'drain-time', station: 'pump-filter', value: 60 }],
    bad: ['Time until it is empty', '0', 'Give a number from 2 to 3600 s.'],
  },
  'fill flow': {
    component: FillFlowComponent,
    done: { 'Water in the bucket': '4', 'Time that it ran': '20' },
    says: '12 L/min',
    keep: 'Keep this reading',
    saves: [{ kind: 'reading', quantity: 'fill-litres', station: 'inlet-screen', value: 2 }],
    bad: ['Time that it ran', '0', 'Give a number from'],
  },
  standpipe: {
    component: StandpipeComponent,
    done: { 'Hose inside the pipe': '8' },
    says: 'It can jump out when the pump starts',
    keep: 'Keep what you measured',
    // The other heights are an example still, and were measured by nobody.
    saves: [{ quantity: 'hose-inserted', value: 8, unit: 'cm' }],
    bad: ['Hose inside the pipe', '-1', 'Give a number from'],
  },
  level: {
    component: LevelComponent,
    done: { 'Left to right': '4', 'Back to front': '0' },
    // 4 mm/m over 0.54 m on M10: 1.44 turns (ISO 261 coarse pitch), told to a quarter.
    says: '1½ turns',
    keep: 'Keep it as a look at the feet',
    saves: [{ kind: 'opened', task: 'level', grade: 2 }],
    bad: ['Left to right', '90', 'Give a number from 0 to 40 mm/m.'],
  },
  mix: {
    component: MixComponent,
    done: { Vinegar: '500' },
    says: 'the acid is gone',
    bad: ['Its strength', '80', 'Give a number from'],
  },
  scale: {
    component: ScaleComponent,
    done: { 'press:very hard': '', 'Heated water since': '3000' },
    says: 'of scale',
    bad: ['Hardness of the water', '5000', 'Give a number from 0 to'],
  },
};

function show({ component }: Instrument, units: UnitSystem = 'metric') {
  const measuring = fakeMeasuring({ units, hardness: 285, currency: 'EUR', energyPrice: 0.3 });
  TestBed.configureTestingModule({ providers: [provideRouter([])] });
  TestBed.overrideComponent(component, {
    set: { providers: [{ provide: Measuring, useValue: measuring.fake }] },
  });
  const fixture = TestBed.createComponent(component);
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  return { ...measuring, ...handsOn(host, () => fixture.detectChanges()), host, fixture };
}

function work({ done }: Instrument, { fill, press }: ReturnType<typeof show>): void {
  for (const [what, value] of Object.entries(done)) {
    if (what.startsWith('press:')) press(what.slice('press:'.length));
    else fill(what, value);
  }
}

describe.each(Object.entries(INSTRUMENTS))('the instrument “%s”', (_name, instrument) => {
  it('tells what it found', () => {
    const shown = show(instrument);
    work(instrument, shown);
    expect(shown.text()).toContain(instrument.says);
  });

  it.each(['metric', 'us'] as const)('leaves no mark in a sentence, in %s units', (units) => {
    const shown = show(instrument, units);
    work(instrument, shown);
    expect(shown.text()).not.toMatch(/[\u27e6\u27e7\u2502]|NaN|undefined|Infinity/);
    if (units === 'us') expect(shown.text()).not.toMatch(/\d (L\/min|L\/s|cm)\b/);
  });

  const { keep, saves, bad } = instrument;
  if (keep) {
    it('keeps nothing that was not measured, and then what was', () => {
      const shown = show(instrument);
      expect(shown.button(keep).disabled).toBe(true);
      work(instrument, shown);
      shown.press(keep);
      expect(shown.saved).toHaveLength(1);
      expect(shown.saved[0]).toHaveLength(saves!.length);
      saves!.forEach((draft, i) => expect(shown.saved[0]![i]).toMatchObject(draft));
    });
  }

  if (bad) {
    const [field, value, message] = bad;
    it('says beside the field what it takes, and keeps nothing', () => {
      const shown = show(instrument);
      work(instrument, shown);
      shown.fill(field, value);
      expect(shown.text()).toContain(message);
      if (keep) expect(shown.button(keep).disabled).toBe(true);
      expect(shown.saved).toEqual([]);
    });
  }

  it('leaves alone what was typed when the house arrives again', () => {
    const shown = show(instrument);
    work(instrument, shown);
    const values = () => [...shown.host.querySelectorAll('input')].map(({ value }) => value);
    const before = values();
    shown.again();
    shown.fixture.detectChanges();
    expect(values()).toEqual(before);
  });
});

describe('the drying test with all figures at hand', () => {
  it('tells the washer’s fault from the dryer’s, and keeps the minutes of a usual load', () => {
    const { press, fill, text, saved } = show({
      component: DryingTestComponent,
      done: {},
      says: '',
    });
    press('I have all figures');
    fill('Dry weight', '3');
    fill('Wet weight', '5.4');
    fill('Weight afterwards', '3.05');
    fill('Time in the dryer', '90');
    fill('The washer’s spin', '1400');
    expect(text()).toContain('the washer is to blame, not the dryer');
    press('Keep the minutes of a usual load');
    // Heat of 3 kg bone-dry with 1.605 kg to take out, over that of this load: 4.52 MJ / 6.42 MJ × 90 min.
    expect(saved[0]![0]).toMatchObject({ quantity: 'drying-minutes', value: 63, unit: 'min' });
    fill('Weight afterwards', '6');
    expect(text()).toContain('Give at most the wet weight.');
  });
});

describe('what is slid in a drawing', () => {
  const keys = (host: HTMLElement, label: string, ...pressed: string[]) => {
    const slider = host.querySelector(`[role="slider"][aria-label="${label}"]`)!;
    for (const key of pressed) slider.dispatchEvent(new KeyboardEvent('keydown', { key }));
    return slider;
  };

  it('tells both slopes of a level, and which side is higher', () => {
    const { host, fixture, text, field } = show(INSTRUMENTS['level']!);
    const along = keys(host, 'Bubble, back to front', 'Enter');
    fixture.detectChanges();
    expect(along.getAttribute('aria-valuetext')).toBe('in the middle');
    const across = host.querySelector('[aria-label="Bubble, left to right"]')!;
    expect(across.getAttribute('aria-valuetext')).toBe('not told yet');
    for (let i = 0; i < 8; i++) {
      keys(host, 'Bubble, left to right', 'ArrowLeft');
      fixture.detectChanges();
    }
    // 4 mm/m over 0.54 m on M10: 1.44 turns (ISO 261 coarse pitch), on the side that is lower.
    expect(across.getAttribute('aria-valuetext')).toBe('4 mm/m, the left is higher');
    expect(field('Left to right').value).toBe('4');
    expect(text()).toContain('front right: 1½ turns out');
    expect(text()).not.toContain('front left: ');
  });

  it('goes no further than its vial, and keeps what was typed beyond', () => {
    const { host, fixture, fill, field } = show(INSTRUMENTS['level']!);
    fill('Left to right', '20');
    expect(field('Left to right').value).toBe('20');
    keys(host, 'Bubble, left to right', 'End');
    fixture.detectChanges();
    expect(field('Left to right').value).toBe('7.5');
  });

  it('tells the litres of a drain test by their height in a common drum', () => {
    const { host, fixture, field } = show(INSTRUMENTS['drain test']!);
    keys(host, 'Water in the drum', 'Home');
    fixture.detectChanges();
    expect(field('Water in the drum').value).toBe('0.5');
    keys(host, 'Water in the drum', 'End');
    fixture.detectChanges();
    // π 0.26² 0.35 m³
    expect(field('Water in the drum').value).toBe('74.5');
  });

  it('leaves what was typed wrong elsewhere as it was typed, with its message', () => {
    const { host, fixture, fill, field, text } = show(INSTRUMENTS['standpipe']!);
    fill('Highest point of the hose', 'much');
    keys(host, 'Hose inside the pipe', 'ArrowDown');
    fixture.detectChanges();
    expect(field('Highest point of the hose').value).toBe('much');
    expect(text()).toContain('Give a number from');
  });

  it('keeps of the standpipe what was slid, and draws it whatever was typed', () => {
    const shown = show(INSTRUMENTS['standpipe']!);
    keys(shown.host, 'Hose inside the pipe', 'ArrowDown');
    shown.fixture.detectChanges();
    shown.press('Keep what you measured');
    expect(shown.saved[0]).toMatchObject([{ quantity: 'hose-inserted', value: 21, unit: 'cm' }]);
    shown.fill('Highest point of the hose', 'much');
    expect(shown.host.querySelector('.hose')!.getAttribute('d')).not.toContain('NaN');
  });
});
