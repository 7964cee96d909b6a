import { TestBed } from '@angular/core/testing';
import {
  due,
  taskById,
  Usage,
  why,
  type Grade,
  Openings,
  type Opening,
  type TaskView,
} from '@needlecase/core';
import { FoulingChartComponent } from './fouling-chart.component';

const NOW = Date.parse('2026-06-15T10:00:00Z');
const DAY = 86_400_000;
const task = taskById('pump-filter');

function view(...seen: [daysAgo: number, grade?: Grade][]): TaskView {
  const openings = seen.map(([daysAgo, grade]): Opening => {
    const at = NOW - daysAgo * DAY;
    const day = new Date(at).toISOString().slice(0, 10);
    const opening = { entryId: `${daysAgo}`, at, day, task: task.id, cleaned: true };
    return grade === undefined ? opening : { ...opening, grade };
  });
  const household = { school: 'steady', risk: 0.1, zone: 'UTC' } as const;
  const one = due({
    task,
    machine: { features: {}, habits: [] },
    household,
    openings: new Openings(openings),
    usage: new Usage([], 5),
    now: NOW,
  });
  const { loads: _loads, ...rest } = one;
  return { ...rest, why: why(task, one, '2026-06-15') };
}

function draw(due: TaskView): HTMLElement {
  const fixture = TestBed.createComponent(FoulingChartComponent);
  fixture.componentRef.setInput('task', task);
  fixture.componentRef.setInput('due', due);
  fixture.detectChanges();
  return fixture.nativeElement as HTMLElement;
}

describe('FoulingChartComponent', () => {
  it('draws a bar for each opening that told something, the due point and now', () => {
    const host = draw(view([200], [140, 1], [80, 3], [20, 2]));
    expect(host.querySelectorAll('.opening')).toHaveLength(3);
    expect(host.querySelectorAll('.now')).toHaveLength(1);
    expect(host.innerHTML).not.toContain('NaN');
    const label = host.querySelector('svg')!.getAttribute('aria-label')!;
    expect(label).toMatch(/^Due after \d+ loads\. Opened 3 times/);
  });

  it('shows what is past the limit past it, and each figure at its own height', () => {
    const value = view([200], [140, 1], [80, 3]);
    const past = {
      ...value,
      fouling: { low: 1.2, median: 1.41, high: 1.7 },
      evidence: [
        ...value.evidence,
        ...[1.3, 1.6].map((fouling) => ({ n: 40, measured: { fouling, weight: 1 } })),
      ],
    } as unknown as TaskView;
    const host = draw(past);
    const limit = Number(host.querySelector('.limit')!.getAttribute('y1'));
    expect(Number(host.querySelector('.now')!.getAttribute('cy'))).toBeLessThan(limit - 10);
    const heights = [...host.querySelectorAll('.measured')].map(
      (one) => /,([\d.-]+)/.exec(one.getAttribute('d')!)![1],
    );
    expect(new Set(heights).size).toBe(2);
    expect(Math.min(...heights.map(Number))).toBeGreaterThan(0);
  });

  it('puts a heavier grade higher', () => {
    const host = draw(view([200], [140, 1], [80, 3]));
    const [light, heavy] = [...host.querySelectorAll('.opening circle')].map((dot) =>
      Number(dot.getAttribute('cy')),
    );
    expect(heavy!).toBeLessThan(light!);
  });

  it('shows what the school says where nothing is known yet', () => {
    const host = draw(view());
    expect(host.querySelectorAll('.opening, .now')).toHaveLength(0);
    expect(host.textContent).toContain('due at 43');
    expect(host.querySelector('svg')!.getAttribute('aria-label')).toContain(
      'Nothing was noted yet',
    );
  });
});
