import { TestBed } from '@angular/core/testing';
import { ActivatedRoute, convertToParamMap } from '@angular/router';
import { BehaviorSubject, Subject } from 'rxjs';
import { ApiService } from '../../data/api.service';
import { BenchService } from '../../data/bench.service';
import { HouseholdService } from '../../data/household.service';
import { OutboxService } from '../../data/outbox.service';
import { ToastsService } from '../../data/toasts.service';
import { Measuring } from './measuring';

describe('the machine that is measured', () => {
  const washer = (id: string) => ({ id, kind: 'front-load-washer', name: id });
  const bench = (...ids: string[]) => ({
    value: { household: { units: 'metric' }, machines: ids.map(washer) },
  });

  function show(asked?: string) {
    const bench$ = new BehaviorSubject(bench('one', 'two', 'three'));
    const query = new BehaviorSubject(convertToParamMap(asked ? { machine: asked } : {}));
    TestBed.configureTestingModule({
      providers: [
        Measuring,
        {
          provide: ActivatedRoute,
          useValue: { queryParamMap: query, snapshot: { data: { instrument: 'tub-water' } } },
        },
        { provide: BenchService, useValue: { bench$ } },
        { provide: ApiService, useValue: { get: () => new Subject() } },
        { provide: HouseholdService, useValue: {} },
        { provide: OutboxService, useValue: {} },
        { provide: ToastsService, useValue: {} },
      ],
    });
    const measuring = TestBed.inject(Measuring);
    return { measuring, bench$, query };
  }

  it('is the one asked for, else the first', () => {
    expect(show('two').measuring.machineId()).toBe('two');
    TestBed.resetTestingModule();
    expect(show('gone').measuring.machineId()).toBe('one');
  });

  it('stays the one chosen here while the bench arrives again and again', () => {
    const { measuring, bench$ } = show('two');
    expect(measuring.machineId()).toBe('two');
    measuring.machineId.set('three');
    bench$.next(bench('one', 'two', 'three'));
    expect(measuring.machineId()).toBe('three');
    bench$.next(bench('new', 'one', 'two', 'three'));
    expect(measuring.machineId()).toBe('three');
  });

  it('falls back when the one chosen is gone, and follows the address when it asks for another', () => {
    const { measuring, bench$, query } = show('two');
    expect(measuring.machineId()).toBe('two');
    measuring.machineId.set('three');
    bench$.next(bench('one', 'two'));
    expect(measuring.machineId()).toBe('two');
    query.next(convertToParamMap({ machine: 'one' }));
    expect(measuring.machineId()).toBe('one');
  });
});
