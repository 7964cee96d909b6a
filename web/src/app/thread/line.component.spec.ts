import { TestBed } from '@angular/core/testing';
import type { StationState } from '@needlecase/core';
import { LineComponent } from './line.component';

const fouling = { low: 0.3, median: 0.5, high: 0.7 };
const stations: StationState[] = [
  { id: 'tap', name: 'Tap', line: 'water', status: 'none', said: 'nothing scheduled' },
  { id: 'gasket', name: 'Gasket', line: 'water', status: 'fine', said: 'due in 5 weeks', fouling },
  { id: 'filter', name: 'Filter', line: 'water', status: 'soon', said: 'due in 3 days', fouling },
  { id: 'hood', name: 'Hood', line: 'air', status: 'due', said: 'due today', fouling },
  { id: 'duct', name: 'Duct', line: 'air', status: 'unknown', said: 'not known yet' },
];

function draw(inputs: Record<string, unknown> = {}) {
  const fixture = TestBed.createComponent(LineComponent);
  for (const [name, value] of Object.entries({
    kind: 'front-load-washer',
    stations,
    label: 'Line of the washer',
    ...inputs,
  })) {
    fixture.componentRef.setInput(name, value);
  }
  fixture.detectChanges();
  const host = fixture.nativeElement as HTMLElement;
  const buttons = () => [...host.querySelectorAll<SVGGElement>('[role="button"]')];
  return { fixture, host, buttons };
}

describe('LineComponent', () => {
  it('tells a screen reader every station, its state and how far it is fouled', () => {
    const { host, buttons } = draw();
    expect(host.querySelector('svg')!.getAttribute('aria-label')).toBe('Line of the washer');
    expect(buttons().map((button) => button.getAttribute('aria-label'))).toEqual([
      'Tap: nothing scheduled',
      'Gasket: due in 5 weeks, about 50 % of the way to trouble',
      'Filter: due in 3 days, about 50 % of the way to trouble',
      'Hood: due today, about 50 % of the way to trouble',
      'Duct: not known yet',
    ]);
  });

  it('tells the states apart by shape: bead, holes, one stitch, cross-stitch, question mark', () => {
    const { buttons } = draw();
    const shapes = buttons().map((button) => ({
      bead: button.querySelectorAll('.bead').length,
      holes: button.querySelectorAll('.hole').length,
      stitches: button.querySelectorAll('.stitch').length,
      ask: button.querySelectorAll('.ask').length,
    }));
    expect(shapes).toEqual([
      { bead: 1, holes: 0, stitches: 0, ask: 0 },
      { bead: 0, holes: 4, stitches: 0, ask: 0 },
      { bead: 0, holes: 4, stitches: 1, ask: 0 },
      { bead: 0, holes: 4, stitches: 2, ask: 0 },
      { bead: 0, holes: 0, stitches: 0, ask: 1 },
    ]);
  });

  it('is one stop for Tab; arrows, Home and End go along it, Enter and Space choose', () => {
    const { fixture, buttons } = draw({ selected: 'filter' });
    const chosen: string[] = [];
    fixture.componentInstance.choose.subscribe((id) => chosen.push(id));
    const reachable = () => buttons().filter((button) => button.getAttribute('tabindex') === '0');
    expect(reachable()).toEqual([buttons()[2]]);
    const press = (index: number, key: string) => {
      buttons()[index]!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
      fixture.detectChanges();
    };
    press(2, 'ArrowRight');
    expect(reachable()).toEqual([buttons()[3]]);
    press(3, 'End');
    press(4, 'ArrowDown');
    expect(reachable()).toEqual([buttons()[4]]);
    press(4, 'Home');
    expect(reachable()).toEqual([buttons()[0]]);
    press(0, 'Enter');
    press(1, ' ');
    expect(chosen).toEqual(['tap', 'gasket']);
  });

  it('draws the thread in two colours and thinner past what is fouled', () => {
    const { host } = draw();
    const threads = [...host.querySelectorAll('.thread')];
    expect(threads.map((thread) => thread.classList.contains('water'))).toEqual([
      true,
      true,
      false,
    ]);
    const widths = threads.map((thread) => Number(thread.getAttribute('stroke-width')));
    expect(widths[0]).toBeGreaterThan(widths[1]!);
  });

  it('is a plain picture when it only shows the place', () => {
    const { host, buttons } = draw({ still: true, selected: 'hood' });
    expect(host.querySelector('svg')!.getAttribute('role')).toBe('img');
    expect(buttons()).toEqual([]);
    expect(host.querySelectorAll('.station.selected')).toHaveLength(1);
  });

  it.each(['strip', 'column', 'picture'])('draws names in the sizes that have room: %s', (size) => {
    const { host } = draw({ size });
    expect(host.querySelectorAll('.name')).toHaveLength(size === 'strip' ? 0 : stations.length);
    expect(host.innerHTML).not.toContain('NaN');
  });
});
