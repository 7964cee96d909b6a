import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { BenchView, Machine } from '@needlecase/core';
import { BehaviorSubject } from 'rxjs';
import { BenchService, type Loaded } from './bench.service';
import { lookNear } from './near';
import { SectionService } from './section.service';

const machines = Array.from({ length: 60 }, (_, i) => ({
  id: `m${i}`,
  place: i < 20 ? 'Attic' : 'Cellar',
})) as Machine[];
const bench = (section: BenchView['section'], shown: readonly Machine[]): Loaded<BenchView> => ({
  value: {
    ...(section ? { section } : {}),
    machines,
    states: shown.map(({ id }) => ({ machineId: id })),
  } as BenchView,
});

describe('lookNear', () => {
  const attic = bench({ id: 'Attic', all: [] }, machines.slice(0, 20));

  function looked(first: Loaded<BenchView>, id: string | undefined) {
    localStorage.clear();
    const bench$ = new BehaviorSubject(first);
    TestBed.configureTestingModule({
      providers: [{ provide: BenchService, useValue: { bench$ } }],
    });
    const machineId = signal(id);
    TestBed.runInInjectionContext(() => lookNear(machineId));
    TestBed.tick();
    return { machineId, chosen: TestBed.inject(SectionService).chosen };
  }

  it('chooses the section of a machine that is not shown', () => {
    expect(looked(attic, 'm30').chosen()).toBe('Cellar');
  });

  it('chooses nothing where the machine is shown, is not known, or the house is told whole', () => {
    expect(looked(attic, 'm3').chosen()).toBeUndefined();
    TestBed.resetTestingModule();
    expect(looked(attic, undefined).chosen()).toBeUndefined();
    TestBed.resetTestingModule();
    expect(looked(attic, 'gone').chosen()).toBeUndefined();
    TestBed.resetTestingModule();
    expect(looked(bench(undefined, []), 'm30').chosen()).toBeUndefined();
  });

  it('does so when another machine is looked at', () => {
    const { machineId, chosen } = looked(attic, 'm3');
    machineId.set('m59');
    TestBed.tick();
    expect(chosen()).toBe('Cellar');
  });
});
