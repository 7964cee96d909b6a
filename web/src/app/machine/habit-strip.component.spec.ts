import { TestBed } from '@angular/core/testing';
import type { HabitRow } from '@needlecase/core';
import { LoadsService } from '../data/loads.service';
import { HabitStripComponent } from './habit-strip.component';

const row = (habit: string, today: boolean, change: Partial<HabitRow> = {}): HabitRow => ({
  machineId: 'm1',
  habit,
  name: `Did ${habit}`,
  why: 'It helps.',
  when: 'after',
  days: [true, false, false, false, false, false, today],
  ...change,
});

function draw(rows: HabitRow[]) {
  const kept: HabitRow[] = [];
  const keep = (one: HabitRow) => (kept.push(one), Promise.resolve());
  TestBed.configureTestingModule({ providers: [{ provide: LoadsService, useValue: { keep } }] });
  const fixture = TestBed.createComponent(HabitStripComponent);
  fixture.componentRef.setInput('rows', rows);
  fixture.detectChanges();
  return { host: fixture.nativeElement as HTMLElement, kept };
}

describe('HabitStripComponent', () => {
  it('notes a habit for today with one tap, and only once', () => {
    const { host, kept } = draw([row('screen', false), row('tank', true)]);
    const buttons = [...host.querySelectorAll('button')];
    for (const button of buttons) button.click();
    expect(kept.map(({ habit }) => habit)).toEqual(['screen']);
    expect(buttons.map((button) => button.disabled)).toEqual([false, true]);
    expect(buttons[1]!.getAttribute('aria-label')).toBe('Did tank, noted today');
  });

  it('parts what comes before a load from what comes after, and scolds nobody', () => {
    const { host } = draw([row('pockets', false, { when: 'before' }), row('screen', false)]);
    const heads = [...host.querySelectorAll('h3')].map((head) => head.textContent);
    expect(heads).toEqual(['Before each load', 'After each load']);
    expect(host.querySelector('.week')!.getAttribute('aria-label')).toBe(
      'Noted on 1 of the last seven days',
    );
    expect(host.textContent).not.toMatch(/missed|forgot|overdue|streak/i);
  });
});
