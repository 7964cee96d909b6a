import { TestBed } from '@angular/core/testing';
import type { MeterImport, MeterKept } from '@needlecase/core';
import { guessShape } from '@needlecase/core/loads/log/shape';
import { Observable, of, Subject, throwError } from 'rxjs';
import { ApiProblem } from '../../data/api.service';
import { MeterService } from '../../data/meter.service';
import { MeterLogService } from '../../workers/meter-log.service';
import type {
  MeterLogAnswered,
  MeterLogAsked,
  MeterLogFound,
} from '../../workers/meter-log.worker';
import { MeterImportComponent } from './meter-import.component';

const TEXT =
  'time,power\n2026-03-02 08:00:00,1.5\n2026-03-02 08:00:10,2000\n2026-03-02 08:00:20,3\n';
const FROM = Date.parse('2026-03-02T08:00:00Z');
const FOUND: MeterLogFound = {
  cycles: [
    {
      ...{ from: FROM, to: FROM + 3_600_000, until: FROM + 3_900_000 },
      ...{ wattHours: 1234.5678, peak: 2000.04, heating: 50, motor: 10, idle: 0, unread: 0 },
      ...{ duty: 0.61234, heater: 1800 },
    },
  ],
  days: [{ day: '2026-03-02', minutes: 'AAAA' }],
  ...{ lines: 1000, taken: 999, left: 1, first: FROM, last: FROM + 3_600_000 },
  problems: [{ line: 7, says: 'there is no figure in it' }],
};

let answers: Subject<MeterLogAnswered>;
let asked: MeterLogAsked[];
let ended: number;
let sent: { found: MeterImport; key: string }[];
let answer: () => Observable<MeterKept>;

beforeEach(() => {
  [asked, sent, ended] = [[], [], 0];
  answer = () => of({ added: 1, matched: 0, known: 0, days: 1, ids: ['e1'] });
  const logs = {
    ask: (one: MeterLogAsked) => {
      asked.push(one);
      const told = (answers = new Subject());
      return new Observable((listener) => {
        const listening = told.subscribe(listener);
        return () => {
          ended++;
          listening.unsubscribe();
        };
      });
    },
  };
  const meters = {
    keep: (_id: string, found: MeterImport, key: string) => {
      sent.push({ found, key });
      return answer();
    },
  };
  TestBed.configureTestingModule({
    providers: [
      { provide: MeterLogService, useValue: logs },
      { provide: MeterService, useValue: meters },
    ],
  });
});

function draw() {
  const fixture = TestBed.createComponent(MeterImportComponent);
  fixture.componentRef.setInput('machine', { id: 'm1' });
  fixture.componentRef.setInput('zone', 'Europe/Vienna');
  const kept: MeterKept[] = [];
  fixture.componentInstance.kept.subscribe((one) => kept.push(one));
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const text = () => host.textContent.replace(/\s+/g, ' ');
  const press = (words: string) => {
    [...host.querySelectorAll('button')].find((one) => one.textContent.includes(words))!.click();
    fixture.detectChanges();
  };
  const choose = (content = TEXT) => {
    const file = new File([content], 'plug.csv');
    const input = host.querySelector<HTMLInputElement>('input[type="file"]')!;
    Object.defineProperty(input, 'files', { value: [file], configurable: true });
    input.dispatchEvent(new Event('change'));
    fixture.detectChanges();
  };
  const told = (one: MeterLogAnswered) => {
    answers.next(one);
    fixture.detectChanges();
  };
  const looked = () =>
    told({ look: { guessed: guessShape(TEXT), lines: TEXT.trim().split('\n') } });
  return { fixture, host, text, press, choose, told, looked, kept };
}

describe('taking a meter’s file in', () => {
  it('shows how it is understood, reads it when that is right, and keeps what was found', () => {
    const { text, press, choose, told, looked, kept } = draw();
    choose();
    looked();
    expect(text()).toContain('2026-03-02 08:00:10');
    expect(text()).toContain('2000 W');
    press('That is right');
    expect(asked[1]).toMatchObject({ do: 'read', zone: 'Europe/Vienna', shape: { unit: 'W' } });
    told({ progress: TEXT.length / 2 });
    expect(text()).toContain('50 %');
    told({ found: FOUND });
    expect(text()).toContain('1 load in 1 day, 1.2 kWh');
    expect(text()).toContain('line 7: there is no figure in it');
    press('Keep them');
    expect(sent[0]!.found.loads).toEqual([
      {
        ...{ from: '2026-03-02T08:00:00.000Z', to: '2026-03-02T09:00:00.000Z' },
        ...{ wattHours: 1234.6, peak: 2000, heating: 50, motor: 10, idle: 0, unread: 0 },
        ...{ duty: 0.612, heater: 1800 },
      },
    ]);
    expect(kept).toHaveLength(1);
  });

  it('keeps what was found where the server does not answer well, and sends it again as the same', () => {
    const { text, press, choose, told, looked, kept } = draw();
    choose();
    looked();
    press('That is right');
    told({ found: FOUND });
    answer = () => throwError(() => new ApiProblem(0, 'Something else answered.', 'Try again.'));
    press('Keep them');
    expect(text()).toContain('Something else answered. Try again.');
    answer = () => of({ added: 0, matched: 0, known: 1, days: 1, ids: [] });
    press('Keep them');
    expect(sent.map(({ key }) => key)).toEqual([sent[0]!.key, sent[0]!.key]);
    expect(kept).toHaveLength(1);
  });

  it('takes nothing of a file that it could not read for a tenth', () => {
    const { text, press, choose, told, looked, host } = draw();
    choose();
    looked();
    press('That is right');
    told({ found: { ...FOUND, left: 400 } });
    expect(text()).toContain('too much to trust the rest');
    expect(
      [...host.querySelectorAll('button')].some((one) => one.textContent.includes('Keep')),
    ).toBe(false);
  });

  it('says what is no meter’s file, what is empty, and what breaks off', () => {
    const { text, press, choose, told, looked, fixture } = draw();
    choose('hello');
    told({ look: { guessed: undefined, lines: ['hello'] } });
    expect(text()).toContain('No column of times and none of figures');
    choose('');
    expect(text()).toContain('There is nothing in this file.');
    choose();
    looked();
    press('That is right');
    answers.error(new Error('The file is gone.'));
    fixture.detectChanges();
    expect(text()).toContain('It cannot be read to its end: The file is gone.');
  });

  it('ends the reading when it is stopped, when another is chosen, and when the page is left', () => {
    const { press, choose, looked, fixture } = draw();
    choose();
    looked();
    press('That is right');
    const before = ended;
    press('Stop');
    expect(ended).toBe(before + 1);
    press('That is right');
    choose();
    expect(ended).toBe(before + 2);
    looked();
    press('That is right');
    fixture.destroy();
    expect(ended).toBeGreaterThanOrEqual(before + 3);
  });
});
