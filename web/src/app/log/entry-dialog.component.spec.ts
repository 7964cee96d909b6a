import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap';
import type { Entry, EntryDraft, Machine } from '@needlecase/core';
import { of, throwError, type Observable } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { EntriesService } from '../data/entries.service';
import { formOn } from '../forms/testing';
import { EntryDialogComponent } from './entry-dialog.component';

const WASHER: Machine = {
  id: 'm1',
  version: 1,
  name: 'Cellar washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
};
const DONE: Entry = {
  id: 'e1',
  machineId: 'm1',
  kind: 'done',
  task: 'pump-filter',
  station: 'pump-filter',
  grade: 2,
  trays: 3,
  found: [{ what: 'coin', count: 1 }],
  note: 'A coin',
  at: '2026-03-01T10:30:42.000Z',
  author: 'household',
  source: 'run',
  zone: 'Europe/Vienna',
  recordedAt: '2026-03-01T10:31:00.000Z',
  runId: 'r1',
};
const READING: Entry = {
  id: 'e2',
  machineId: 'm1',
  kind: 'reading',
  station: 'pump-filter',
  quantity: 'drain-time',
  value: 48,
  unit: 's',
  at: '2026-03-01T10:30:00.000Z',
  author: 'household',
  source: 'run',
  zone: 'Europe/Vienna',
  recordedAt: '2026-03-01T10:31:00.000Z',
};

describe('the dialog of an entry', () => {
  let sent: EntryDraft[];
  let closed: unknown[];
  let answer: () => Observable<unknown>;

  beforeEach(() => {
    sent = [];
    closed = [];
    answer = () => of({ id: 'new' });
    const send = (draft: EntryDraft) => {
      sent.push(draft);
      return answer();
    };
    const entries = { add: send, correct: (_old: Entry, draft: EntryDraft) => send(draft) };
    TestBed.configureTestingModule({
      providers: [
        { provide: EntriesService, useValue: entries },
        { provide: NgbActiveModal, useValue: { close: (one: unknown) => closed.push(one) } },
      ],
    });
  });

  function open(old?: Entry) {
    const fixture = TestBed.createComponent(EntryDialogComponent);
    fixture.componentInstance.machines.set([WASHER]);
    fixture.componentInstance.zone.set('Europe/Vienna');
    fixture.componentInstance.old.set(old);
    return formOn(fixture);
  }

  it('enters loads of a past day', () => {
    const form = open();
    form.fill('When', '2026-03-01T18:00');
    form.fill('Loads', '3');
    form.send();
    expect(sent).toEqual([
      { kind: 'load', machineId: 'm1', count: 3, at: '2026-03-01T17:00:00Z', source: 'log' },
    ]);
    expect(closed).toEqual([{ id: 'new' }]);
  });

  it('enters work with the grade that was seen', () => {
    const form = open();
    form.fill('What', 'done');
    form.fill('Task', 'pump-filter');
    form.host.querySelector<HTMLSelectElement>('#c-grade')!.selectedIndex = 3;
    form.host.querySelector('#c-grade')!.dispatchEvent(new Event('change'));
    form.send();
    expect(sent[0]).toMatchObject({ kind: 'done', task: 'pump-filter', grade: 2 });
    expect(sent[0]).not.toHaveProperty('count');
  });

  it('corrects what it asks and keeps the rest, to the second', () => {
    const form = open(DONE);
    form.fill('Note', '');
    form.send();
    expect(sent[0]).toEqual({
      kind: 'done',
      machineId: 'm1',
      task: 'pump-filter',
      station: 'pump-filter',
      grade: 2,
      trays: 3,
      found: [{ what: 'coin', count: 1 }],
      at: DONE.at,
      author: 'household',
      source: 'run',
    });
  });

  it('corrects a figure in the unit it is kept in', () => {
    const form = open(READING);
    form.fill('Figure, s', '52');
    form.send();
    expect(sent[0]).toMatchObject({ quantity: 'drain-time', value: 52, unit: 's' });
  });

  it('asks for a date that is none, and stores nothing', () => {
    const form = open();
    form.fill('When', '');
    form.send();
    expect(form.wrong()).toEqual(['Give a date and a time.']);
    expect(sent).toEqual([]);
  });

  it('says beside the field what the server refuses, and stays open', () => {
    const errors = [{ field: 'at', message: 'This is in the future. Give a time up to now.' }];
    answer = () => throwError(() => new ApiProblem(422, 'Look again.', '', errors));
    const form = open();
    form.send();
    expect(form.wrong()).toEqual(['This is in the future. Give a time up to now.']);
    expect(closed).toEqual([]);
  });
});
