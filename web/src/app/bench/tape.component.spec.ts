import { TestBed } from '@angular/core/testing';
import { plusDays } from '@needlecase/core';
import { TapeComponent, type Pin } from './tape.component';

const TODAY = '2026-06-15';
const pin = (days: number, key: string): Pin => ({
  key,
  machineId: 'm1',
  station: 'gasket',
  name: 'Clean the gasket folds',
  machine: 'Cellar washer',
  on: plusDays(TODAY, days),
  status: days <= 0 ? 'due' : 'fine',
  line: 'water',
});

function draw(pins: Pin[]): HTMLElement {
  const fixture = TestBed.createComponent(TapeComponent);
  fixture.componentRef.setInput('pins', pins);
  fixture.componentRef.setInput('today', TODAY);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
}

describe('TapeComponent', () => {
  it('tells a screen reader every date, the earliest first', () => {
    const host = draw([pin(20, 'a'), pin(-3, 'b')]);
    expect(host.querySelector('svg')!.getAttribute('aria-label')).toBe(
      'Due dates: Clean the gasket folds, Cellar washer, 3 days ago; Clean the gasket folds, Cellar washer, in 20 days',
    );
  });

  it('pins along the tape in order of date, what is past before today', () => {
    const host = draw([pin(40, 'a'), pin(-30, 'b'), pin(3, 'c')]);
    const heads = [...host.querySelectorAll('.head')].map((head) =>
      Number(head.getAttribute('cx')),
    );
    expect(heads).toEqual([...heads].sort((a, b) => a - b));
    expect(heads[0]!).toBeLessThan(74);
    expect(heads[1]!).toBeGreaterThan(74);
  });

  it('puts labels that would meet on rows of their own', () => {
    const host = draw([pin(1, 'a'), pin(2, 'b'), pin(3, 'c'), pin(100, 'd')]);
    const rows = [...host.querySelectorAll('.head')].map((head) => head.getAttribute('cy'));
    expect(new Set(rows.slice(0, 3)).size).toBe(3);
    expect(rows[3]).toBe(rows[0]);
  });

  it('keeps the pin of what finds no room for its name, and tells it when pointed at', () => {
    const host = draw(Array.from({ length: 12 }, (_, i) => pin(2, `p${i}`)));
    expect(host.querySelectorAll('.head')).toHaveLength(12);
    expect(host.querySelectorAll('.name')).toHaveLength(4);
    expect(host.querySelector('title')!.textContent).toContain('Cellar washer: in 2 days');
    expect(host.querySelector('.list')!.textContent).toContain('and 2 more later');
  });

  it('leaves out of the tape what is far off, and keeps it in the list', () => {
    const host = draw([pin(400, 'a'), pin(5, 'b')]);
    expect(host.querySelectorAll('.pin')).toHaveLength(1);
    expect(host.querySelectorAll('.list li')).toHaveLength(2);
  });
});
