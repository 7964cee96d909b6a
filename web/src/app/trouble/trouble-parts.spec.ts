import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import {
  caseState,
  troubleView,
  type CaseEvent,
  type CodeSeen,
  type CodeSheet,
  type Machine,
} from '@needlecase/core';
import type { Happening } from '@needlecase/core';
import { CodeEntryComponent } from './code-entry.component';
import { FirstComponent } from './first.component';
import { FixComponent } from './fix.component';
import { percent } from './percent';
import { CaseProofComponent } from './proof.component';
import { SuspectsComponent } from './suspects.component';
import { LookedComponent } from './looked.component';
import { NoticeComponent } from './notice.component';

const machine: Machine = {
  id: 'm1',
  version: 1,
  name: 'Washer',
  kind: 'front-load-washer',
  maker: 'Brackenfold',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
};
const sheet: CodeSheet = {
  id: 's1',
  version: 1,
  format: 'needlecase-code-sheet-1',
  maker: 'Brackenfold',
  family: 'Loops',
  kinds: ['front-load-washer'],
  rows: [
    { code: 'HEM-18', says: 'Not pumped out', class: 'drain' },
    { code: 'TUK', says: 'Clean the drum', class: 'reminder' },
  ],
};

const hostOf = (fixture: { nativeElement: unknown }) => fixture.nativeElement as HTMLElement;
const press = (host: HTMLElement, words: string) =>
  [...host.querySelectorAll('button')]
    .find(({ textContent }) => textContent.trim().startsWith(words))!
    .click();
const type = (host: HTMLElement, words: string) => {
  const field = host.querySelector('input')!;
  field.value = words;
  field.dispatchEvent(new Event('input'));
};

beforeEach(() => TestBed.configureTestingModule({ providers: [provideRouter([])] }));

describe('FirstComponent', () => {
  it('keeps the words of a reset sequence in the field until they are stored', () => {
    const fixture = TestBed.createComponent(FirstComponent);
    fixture.componentRef.setInput('things', []);
    fixture.componentRef.setInput('machine', 'm1');
    fixture.componentRef.setInput('ladder', [
      { id: 'reset', do: 'The maker’s reset.', why: '', minutes: 2, cautions: [] },
    ]);
    const kept: string[] = [];
    fixture.componentInstance.wayFound.subscribe((way) => kept.push(way));
    fixture.detectChanges();
    const field = hostOf(fixture).querySelector('input')!;
    type(hostOf(fixture), '  Hold Start for five seconds ');
    press(hostOf(fixture), 'Keep it');
    fixture.detectChanges();
    expect(kept).toEqual(['Hold Start for five seconds']);
    expect(field.value).toContain('Hold Start');
    fixture.componentRef.setInput('way', 'Hold Start for five seconds');
    fixture.detectChanges();
    expect(field.value).toBe('');
    press(hostOf(fixture), 'Keep it');
    expect(kept).toHaveLength(1);
  });
});

describe('NoticeComponent', () => {
  function show() {
    const fixture = TestBed.createComponent(NoticeComponent);
    fixture.componentRef.setInput('machines', [machine]);
    fixture.detectChanges();
    const told: string[] = [];
    fixture.componentInstance.told.subscribe(({ finding }) => told.push(finding));
    return { fixture, host: hostOf(fixture), told };
  }
  const said = (host: HTMLElement) =>
    [...host.querySelectorAll('.choice')].map(({ textContent }) => textContent.trim());

  it.each([
    ['stinks', 'It smells musty'],
    ['wont pump the water out', 'It does not drain: water stands in the drum'],
    ['puddle', 'Drips or a pool at the front'],
    ['noise', 'It rattles or clicks at the pump'],
    ['drians', 'It drains slowly'],
    ['spi', 'It does not spin up'],
    ['leaking', 'Drips or a pool at the front'],
  ])('finds by “%s”: %s', (typed, symptom) => {
    const { fixture, host } = show();
    type(host, typed);
    fixture.detectChanges();
    expect(said(host)).toContain(symptom);
  });

  it.each([
    ['hem18', 'On the display: hem18'],
    ['TUK', 'On the display: TUK'],
    ['F 07', 'On the display: F 07'],
    ['5 minutes', undefined],
  ])('takes “%s” as a code: %s', (typed, button) => {
    const { fixture, host } = show();
    fixture.componentRef.setInput('sheets', [sheet]);
    const codes: string[] = [];
    fixture.componentInstance.coded.subscribe(({ code }) => codes.push(code));
    type(host, typed);
    fixture.detectChanges();
    const found = host.querySelector<HTMLButtonElement>('.choice.code');
    expect(found?.firstChild?.textContent?.trim()).toBe(button);
    found?.click();
    expect(codes).toEqual(button ? [typed] : []);
  });

  it('says so where nothing fits, and tells what is chosen', () => {
    const { fixture, host, told } = show();
    type(host, 'zzzzzz');
    fixture.detectChanges();
    expect(host.textContent).toContain('Nothing fits these words');
    type(host, 'foam');
    fixture.detectChanges();
    press(host, 'Foam at the glass');
    expect(told).toEqual(['foam']);
  });
});

describe('CodeEntryComponent', () => {
  function show(typed: string) {
    const fixture = TestBed.createComponent(CodeEntryComponent);
    fixture.componentRef.setInput('machine', machine);
    fixture.componentRef.setInput('sheets', [sheet]);
    const seen: CodeSeen[] = [];
    fixture.componentInstance.seen.subscribe((code) => seen.push(code));
    fixture.detectChanges();
    const host = hostOf(fixture);
    type(host, typed);
    fixture.detectChanges();
    return { fixture, host, seen };
  }

  it('takes a row of the sheet', () => {
    const { host, seen } = show('hem18');
    press(host, 'The display shows this');
    expect(seen).toEqual([
      { code: 'HEM-18', says: 'Not pumped out', class: 'drain', listed: true },
    ]);
  });

  it('opens no case for a reminder', () => {
    const { host, seen } = show('tuk');
    expect(host.textContent).toContain('This is a reminder, not a fault.');
    expect(host.querySelector('.row button')).toBeNull();
    expect(seen).toEqual([]);
  });

  it('asks what a strange code is about, and that weighs less', () => {
    const { host, seen } = show('NIP9');
    press(host, 'filling');
    expect(seen).toEqual([{ code: 'NIP9', class: 'fill', listed: false }]);
  });
});

describe('CaseProofComponent', () => {
  let number = 0;
  const happened = (kind: CaseEvent['kind'], more: object = {}) =>
    ({ id: String(++number), at: '2026-03-01T10:00:00Z', kind, ...more }) as CaseEvent;
  const slow = happened('answer', { finding: 'drains-slowly', answer: 'yes' });
  const before = happened('measure', { quantity: 'drain-time', value: 120, unit: 's' });
  const fix = happened('fix', { cause: 'filter-clogged' });
  function show(...events: CaseEvent[]) {
    const fixture = TestBed.createComponent(CaseProofComponent);
    fixture.componentRef.setInput('kind', 'front-load-washer');
    fixture.componentRef.setInput('state', caseState({ events }));
    const told: Happening[] = [];
    fixture.componentInstance.tell.subscribe((one) => told.push(one));
    fixture.detectChanges();
    return { fixture, host: hostOf(fixture), told };
  }

  it.each(['', '0', '-4', 'many', '1e9'])('takes no “%s” for a figure, and says why', (typed) => {
    const { fixture, host, told } = show(slow, before, fix);
    type(host, typed);
    host.querySelector('form')!.dispatchEvent(new Event('submit'));
    fixture.detectChanges();
    expect(told).toEqual([]);
    expect(host.querySelector('[role=alert]')!.textContent).toContain('Give a number above 0');
  });

  it('notes the figure after', () => {
    const { host, told } = show(slow, before, fix);
    type(host, '58,5');
    host.querySelector('form')!.dispatchEvent(new Event('submit'));
    expect(told).toEqual([{ kind: 'measure', quantity: 'drain-time', unit: 's', value: 58.5 }]);
  });

  it('closes what is gone and better, and doubts what is no better', () => {
    const gone = happened('gone', { finding: 'drains-slowly', gone: true });
    const after = (value: number) =>
      happened('measure', { quantity: 'drain-time', value, unit: 's' });
    const held = show(slow, before, fix, after(60), gone);
    expect(held.host.textContent).toContain('Better than before');
    press(held.host, 'It held: close the case');
    expect(held.told).toEqual([{ kind: 'close', ending: 'fixed', returnDays: 30 }]);
    const doubtful = show(slow, before, fix, after(118), gone);
    expect(doubtful.host.textContent).toContain('About the same as before');
    press(doubtful.host, 'It did not hold');
    expect(doubtful.told).toEqual([{ kind: 'not-held' }]);
  });
});

describe('SuspectsComponent', () => {
  it('ranks them with their reasons, and says how sure that is', () => {
    const fixture = TestBed.createComponent(SuspectsComponent);
    fixture.componentRef.setInput('machine', machine);
    fixture.componentRef.setInput('stations', []);
    fixture.componentRef.setInput(
      'view',
      troubleView({ kind: machine.kind, features: {} }, { 'drains-slowly': 'yes' }),
    );
    fixture.detectChanges();
    const host = hostOf(fixture);
    const rows = [...host.querySelectorAll('li')];
    expect(rows[0]!.textContent).toContain('the pump filter is clogged');
    expect(rows[0]!.textContent).toContain('It drains slowly');
    expect(rows.at(-1)!.textContent).toContain('something else, or nothing wrong');
    expect(host.textContent).toContain('no record of your own yet');
  });

  it('says why chances add to more than all', () => {
    const fixture = TestBed.createComponent(SuspectsComponent);
    fixture.componentRef.setInput('machine', machine);
    fixture.componentRef.setInput('stations', []);
    const view = troubleView({ kind: machine.kind, features: {} }, { 'drains-slowly': 'yes' });
    const more = view.suspects.map((one) => ({ ...one, chance: 0.9 }));
    fixture.componentRef.setInput('view', { ...view, suspects: more });
    fixture.detectChanges();
    expect(hostOf(fixture).textContent).toContain('two can be there at once');
  });
});

describe('LookedComponent', () => {
  it('takes what somebody looked and found, and nothing before it was chosen', () => {
    const fixture = TestBed.createComponent(LookedComponent);
    fixture.componentRef.setInput('machine', machine);
    fixture.componentRef.setInput('stations', []);
    const looked: string[] = [];
    fixture.componentInstance.looked.subscribe((cause) => looked.push(cause));
    fixture.detectChanges();
    const host = hostOf(fixture);
    host.querySelector('form')!.dispatchEvent(new Event('submit'));
    host.querySelector('select')!.value = 'trap-clogged';
    host.querySelector('form')!.dispatchEvent(new Event('submit'));
    expect(looked).toEqual(['trap-clogged']);
  });
});

describe('FixComponent', () => {
  it('begins no work that is for somebody trained: it prints and calls', () => {
    const fixture = TestBed.createComponent(FixComponent);
    fixture.componentRef.setInput('summary', '/summary.pdf');
    fixture.componentRef.setInput('fix', {
      cause: 'pump-failed',
      name: 'the pump failed',
      say: 'Have the pump replaced.',
      who: 'professional',
      chance: 0.8,
      minutes: 180,
    });
    fixture.detectChanges();
    const host = hostOf(fixture);
    expect(host.querySelector('a')!.getAttribute('href')).toBe('/summary.pdf');
    expect(host.textContent).not.toContain('Begin this work');
  });

  it('never says that something is certain', () => {
    expect([0.001, 0.5, 0.999].map(percent)).toEqual(['under 1 %', '50 %', 'over 99 %']);
  });
});
