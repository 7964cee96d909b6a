import { computed, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ChemicalEvent, Machine, Visit, VisitProgress } from '@needlecase/core';
import { of } from 'rxjs';
import { BenchService } from '../data/bench.service';
import { VisitChemicals } from './visit-chemicals';
import { VisitKeeper } from './visit-keeper';
import { VisitMoves } from './visit-moves';
import { END, VisitPlace } from './visit-place';

const WASHER: Machine = {
  id: 'w',
  version: 1,
  name: 'Washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: { filterAccess: 'front-right', drainDownHose: 'yes' },
  habits: [],
  loadsPerWeek: 5,
};

function show(present: ChemicalEvent[] = []) {
  const visit = signal<Visit>({
    id: 'r',
    version: 1,
    state: 'active',
    tasks: [
      { machineId: 'w', task: 'gasket-folds' },
      { machineId: 'w', task: 'pump-filter' },
    ],
    progress: { fetched: [], ticked: {}, tasks: {}, readings: {} },
  } as unknown as Visit);
  const entries = signal<unknown>(undefined);
  const later = signal(false);
  const keeper = {
    run: visit,
    entries,
    later,
    progress: computed(() => visit().progress),
    change: (edit: (progress: VisitProgress) => VisitProgress) =>
      visit.update((one) => ({ ...one, progress: edit(one.progress) })),
  };
  TestBed.configureTestingModule({
    providers: [
      VisitMoves,
      VisitPlace,
      { provide: VisitKeeper, useValue: keeper },
      { provide: VisitChemicals, useValue: { presentIn: () => present } },
      {
        provide: BenchService,
        useValue: {
          bench$: of({
            value: { machines: [WASHER], states: [{ machineId: 'w', chemicals: {} }] },
          }),
        },
      },
    ],
  });
  return {
    place: TestBed.inject(VisitPlace),
    moves: TestBed.inject(VisitMoves),
    run: visit,
    later,
    progress: () => visit().progress,
  };
}

describe('moving through a visit', () => {
  it('goes step by step to the end, and back', () => {
    const { place, moves } = show();
    const steps = place.plan()!.steps;
    expect(place.step()).toBeUndefined();
    moves.go(steps[0]!.key);
    for (const step of steps) {
      expect(place.step()!.key).toBe(step.key);
      moves.tick(step);
    }
    expect(place.atEnd()).toBe(true);
    moves.back();
    expect(place.step()!.key).toBe(steps.at(-1)!.key);
    moves.go(steps[0]!.key);
    moves.back();
    expect(place.at()).toBeUndefined();
  });

  it('keeps when a step was first ticked, and forgets it when the step is left out', () => {
    const { place, moves, progress } = show();
    const [first, second] = place.plan()!.steps;
    moves.go(first!.key);
    moves.tick(place.step()!);
    const at = progress().ticked[first!.key];
    expect(at).toBeDefined();
    moves.go(first!.key);
    moves.tick(place.step()!);
    expect(progress().ticked[first!.key]).toBe(at);
    moves.go(first!.key);
    moves.skip();
    expect(progress().ticked).toEqual({});
    expect(place.step()!.key).toBe(second!.key);
  });

  it('notes at the task of the step on screen, and a reading at the step', () => {
    const { place, moves, progress } = show();
    const step = place.plan()!.steps.find(({ task }) => task === 'pump-filter')!;
    moves.go(step.key);
    moves.note({ grade: 2 });
    moves.note({ trays: 3 });
    expect(place.record()).toEqual({ grade: 2, trays: 3 });
    moves.read(62);
    expect(progress().readings).toEqual({ [step.key]: { value: 62 } });
    expect(place.reading()).toBe(62);
    moves.read(undefined);
    expect(progress().readings).toEqual({});
    expect(place.reading()).toBeUndefined();
  });

  it('ticks what is fetched on and off', () => {
    const { moves, progress } = show();
    moves.turnFetched('A towel');
    moves.turnFetched('A tray');
    moves.turnFetched('A towel');
    expect(progress().fetched).toEqual(['A tray']);
  });

  it('waits at a step that asks what is used, until it is answered', () => {
    const { place, moves, run: visit } = show();
    const step = place.plan()!.steps.find((one) => one.step.brings)!;
    moves.go(step.key);
    expect(place.waitsFor()).toBe('Answer first');
    visit.update((one) => ({
      ...one,
      progress: {
        ...one.progress,
        brought: { [step.key]: { product: 'nothing', at: '2026-01-01T00:00:00Z' } },
      },
    }));
    expect(place.waitsFor()).toBe('');
  });

  it('names what was begun and not put back', () => {
    const { place, moves } = show();
    expect(place.leftOpen()).toEqual([]);
    const [first] = place.plan()!.steps;
    moves.go(first!.key);
    moves.tick(place.step()!);
    const left = place.leftOpen();
    expect(left.length).toBeGreaterThan(2);
    for (const step of left) moves.tick(step);
    expect(place.leftOpen()).toEqual([]);
  });

  it('is done once it was finished, here or there', () => {
    const { place, later, run: visit } = show();
    expect(place.done()).toBe(false);
    later.set(true);
    expect(place.done()).toBe(true);
    later.set(false);
    visit.update((one) => ({ ...one, state: 'finished' }));
    expect(place.done()).toBe(true);
  });

  it('knows the end by its name', () => {
    const { place, moves } = show();
    moves.go(END);
    expect(place.step()).toBeUndefined();
    expect(place.atEnd()).toBe(true);
  });
});
