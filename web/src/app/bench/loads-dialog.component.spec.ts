import { TestBed } from '@angular/core/testing';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap';
import type { Machine, MachineKind } from '@needlecase/core';
import { LoadsService, type Counting } from '../data/loads.service';
import { LoadsDialogComponent } from './loads-dialog.component';

function open(kind: MachineKind = 'front-load-washer') {
  const counted: Counting[] = [];
  const count = (_machine: Machine, details: Counting) => (
    counted.push(details),
    Promise.resolve()
  );
  TestBed.configureTestingModule({
    providers: [NgbActiveModal, { provide: LoadsService, useValue: { count } }],
  });
  const fixture = TestBed.createComponent(LoadsDialogComponent);
  const machine = { id: '00000000-0000-4000-8000-000000000001', name: 'Washer', kind } as Machine;
  fixture.componentInstance.machine.set(machine);
  fixture.componentInstance.zone.set('Europe/Vienna');
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const type = (selector: string, value: string) => {
    const field = host.querySelector<HTMLInputElement>(selector)!;
    field.value = value;
    field.dispatchEvent(new Event('input'));
    fixture.detectChanges();
  };
  const press = (name: string) => {
    const all = [...host.querySelectorAll<HTMLElement>('button, label span')];
    all.find(({ textContent }) => textContent.trim() === name)!.click();
    fixture.detectChanges();
  };
  return { host, counted, type, press };
}

describe('LoadsDialogComponent', () => {
  it('counts several of a kind, of a past day, at its noon', () => {
    const { counted, type, press } = open();
    press('+');
    press('+');
    press('Hot');
    type('#loads-day', '2026-03-01');
    press('Count');
    expect(counted).toEqual([{ count: 3, programme: 'hot', at: '2026-03-01T11:00:00Z' }]);
  });

  it.each([
    ['#loads-count', '0', 'Give a number from 1 to 50.'],
    ['#loads-count', '', 'Give a whole number.'],
    ['#loads-day', '', 'Give a day.'],
    ['#loads-day', '2126-01-01', 'This is in the future. Give a day up to today.'],
  ])('says what is wrong with %s “%s” and counts nothing', (selector, value, message) => {
    const { host, counted, type, press } = open();
    type(selector, value);
    press('Count');
    expect(counted).toEqual([]);
    expect(host.querySelector('.field-problem')!.textContent).toContain(message);
  });

  it('asks a dryer only what matters to it', () => {
    const { host } = open('vented-dryer');
    const kinds = [...host.querySelectorAll('.kinds span')].map((one) => one.textContent.trim());
    expect(kinds).toEqual(['As usual', 'Much lint: fleece, new towels']);
  });
});
