import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { KeptVentRun, VentRunInput } from '@needlecase/core';
import { of, Subject } from 'rxjs';
import { ApiService } from '../../data/api.service';
import { ToastsService } from '../../data/toasts.service';
import { DrumService } from '../../workers/drum.service';
import { KeptRunsComponent } from '../parts/kept-runs.component';
import { Measuring } from '../parts/measuring';
import { PiecesComponent, rowOf, type Row } from '../parts/pieces.component';
import { fakeMeasuring } from '../parts/testing';
import VentRunComponent from './vent-run.component';

const hostOf = (fixture: { nativeElement: unknown }) => fixture.nativeElement as HTMLElement;
const m = (value: number) => ({ value, unit: 'm' });
const SHORT: VentRunInput = {
  pieces: [
    { is: 'straight', length: m(2), direction: 'level' },
    { is: 'hood', state: 'free', screened: false },
  ],
  material: 'smooth-metal',
  diameter: { value: 100, unit: 'mm' },
};
const kept = (id: string, machineId?: string): KeptVentRun => ({
  id,
  version: 1,
  name: `Run ${id}`,
  run: SHORT,
  ...(machineId ? { machineId } : {}),
});
const buttons = (host: HTMLElement, words: string) =>
  [...host.querySelectorAll('button')].filter(
    (one) =>
      (one.textContent ?? '').includes(words) ||
      (one.getAttribute('aria-label') ?? '').includes(words),
  );

describe('KeptRunsComponent', () => {
  function show(...runs: KeptVentRun[]) {
    const list = new Subject<KeptVentRun[]>();
    const sent: unknown[][] = [];
    const toasts: { text: string; undo?: () => void }[] = [];
    TestBed.configureTestingModule({
      providers: [
        {
          provide: ApiService,
          useValue: {
            get: () => list,
            send: (...call: unknown[]) => {
              sent.push(call);
              return of({ ...kept('new'), ...(call[2] as object | undefined) });
            },
          },
        },
        {
          provide: ToastsService,
          useValue: {
            show: (text: string, more?: { action?: { do: () => void } }) =>
              toasts.push({ text, ...(more?.action ? { undo: more.action.do } : {}) }),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(KeptRunsComponent);
    fixture.componentRef.setInput('machineId', 'dryer');
    fixture.componentRef.setInput('run', SHORT);
    const offered: string[] = [];
    fixture.componentInstance.first.subscribe(({ id }) => offered.push(id));
    fixture.detectChanges();
    list.next(runs);
    fixture.detectChanges();
    const host = hostOf(fixture);
    return { fixture, host, offered, sent, toasts, list };
  }

  it('offers this machine’s own run once, whatever comes later', () => {
    const { fixture, host, offered, list } = show(kept('other', 'washer'), kept('own', 'dryer'));
    expect(offered).toEqual(['own']);
    expect(host.querySelector('tr.now')!.textContent).toContain('Run own');
    list.next([kept('later', 'dryer')]);
    fixture.detectChanges();
    expect(offered).toEqual(['own']);
  });

  it('offers nothing where nothing is kept for the machine', () => {
    expect(show(kept('other', 'washer'), kept('free')).offered).toEqual([]);
  });

  it('keeps what is laid out under the name given, for this machine', () => {
    const { host, sent, toasts } = show();
    host.querySelector('input')!.value = '  Through the wall ';
    host.querySelector('form')!.dispatchEvent(new Event('submit'));
    expect(sent[0]!.slice(0, 3)).toEqual([
      'POST',
      'vent-runs',
      { name: 'Through the wall', run: SHORT, machineId: 'dryer' },
    ]);
    expect(toasts[0]!.text).toBe('“Through the wall” is kept.');
  });

  it('keeps nothing that cannot be reckoned', () => {
    const { fixture, host, sent } = show();
    fixture.componentRef.setInput('run', undefined);
    fixture.detectChanges();
    expect(buttons(host, 'Keep this run')[0]!.disabled).toBe(true);
    host.querySelector('form')!.dispatchEvent(new Event('submit'));
    expect(sent).toEqual([]);
  });

  it('takes one away by its version, and brings it back whole', () => {
    const { host, sent, toasts } = show(kept('own', 'dryer'));
    buttons(host, 'Take Run own away')[0]!.click();
    expect(sent[0]).toEqual(['DELETE', 'vent-runs/own', undefined, { version: 1 }]);
    toasts[0]!.undo!();
    expect(sent[1]!.slice(0, 3)).toEqual([
      'POST',
      'vent-runs',
      { name: 'Run own', run: SHORT, machineId: 'dryer' },
    ]);
  });
});

describe('PiecesComponent', () => {
  function show() {
    const fixture = TestBed.createComponent(PiecesComponent);
    const rows = SHORT.pieces.map((piece) => rowOf(piece));
    fixture.componentRef.setInput('rows', rows);
    let next: readonly Row[] = rows;
    fixture.componentInstance.rows.subscribe((all) => (next = all));
    fixture.detectChanges();
    return { fixture, host: hostOf(fixture), kinds: () => next.map(({ piece }) => piece.is) };
  }

  it('adds a piece before the hood, which stays last', () => {
    const { fixture, host, kinds } = show();
    buttons(host, '+ Elbow')[0]!.click();
    fixture.detectChanges();
    expect(kinds()).toEqual(['straight', 'elbow', 'hood']);
    buttons(host, '+ Hood')[0]!.click();
    expect(kinds()).toEqual(['straight', 'elbow', 'hood', 'hood']);
  });

  it('moves and takes away by button', () => {
    const { fixture, host, kinds } = show();
    buttons(host, 'Piece 2 nearer to the machine')[0]!.click();
    fixture.detectChanges();
    expect(kinds()).toEqual(['hood', 'straight']);
    buttons(host, 'Take piece 1 away')[0]!.click();
    expect(kinds()).toEqual(['straight']);
  });

  it('shows lengths in feet where the house measures in feet, and the problem beside its piece', () => {
    const { fixture, host } = show();
    fixture.componentRef.setInput('units', 'us');
    fixture.componentRef.setInput('problems', [
      { field: 'pieces.1.state', message: 'Say how the flap is.' },
    ]);
    fixture.detectChanges();
    expect(host.querySelector('input')!.value).toBe('6.6');
    expect(host.querySelectorAll('li')[1]!.textContent).toContain('Say how the flap is.');
    expect(host.querySelectorAll('.field-problem')).toHaveLength(1);
  });
});

describe('VentRunComponent', () => {
  it('leaves alone what the person laid out while the kept runs were still on their way', () => {
    const list = new Subject<KeptVentRun[]>();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ApiService, useValue: { get: () => list } },
        { provide: ToastsService, useValue: {} },
        { provide: DrumService, useValue: { dry: () => new Subject() } },
      ],
    });
    const { fake } = fakeMeasuring({}, 'dryer');
    TestBed.overrideComponent(VentRunComponent, {
      set: { providers: [{ provide: Measuring, useValue: fake }] },
    });
    const show = (touch: boolean) => {
      const fixture = TestBed.createComponent(VentRunComponent);
      fixture.detectChanges();
      const host = hostOf(fixture);
      if (touch) buttons(host, '+ Elbow')[0]!.click();
      fixture.detectChanges();
      list.next([kept('own', 'dryer')]);
      fixture.detectChanges();
      return host.querySelectorAll('.pieces li').length;
    };
    expect(show(false)).toBe(2);
    expect(show(true)).toBe(8);
  });
});
