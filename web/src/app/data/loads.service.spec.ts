import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Entry, Machine } from '@needlecase/core';
import { Subject } from 'rxjs';
import { ApiProblem } from './api.service';
import { LoadsService } from './loads.service';
import { OutboxService, type Outgoing } from './outbox.service';
import { ToastsService } from './toasts.service';

const machine = { id: 'm1', name: 'Washer' } as Machine;

describe('LoadsService', () => {
  const sent$ = new Subject<Entry>();
  const refused$ = new Subject<{ entry: Outgoing; problem: ApiProblem }>();
  let kept: Outgoing[];
  let outbox: Partial<OutboxService>;
  let undone: string[];
  let loads: LoadsService;
  const said = () => TestBed.inject(ToastsService).shown();

  beforeEach(() => {
    kept = [];
    undone = [];
    outbox = {
      sent$,
      refused$,
      waiting: signal(0),
      add: (entry) => Promise.resolve(kept.push(entry as Outgoing) > 0),
      undo: (id) => {
        undone.push(id);
        return id === 'bad' ? Promise.reject(new Error('full')) : Promise.resolve(false);
      },
    };
    TestBed.configureTestingModule({
      providers: [{ provide: OutboxService, useValue: outbox }],
    });
    loads = TestBed.inject(LoadsService);
  });

  it('keeps a tap as waiting until the server has it', async () => {
    await loads.count(machine);
    expect(kept).toHaveLength(1);
    expect(kept[0]).toMatchObject({ machineId: 'm1', kind: 'load', count: 1, source: 'bench' });
    expect([...loads.pending().values()]).toEqual([1]);
    sent$.next({ id: kept[0]!.id } as Entry);
    expect(loads.pending().size).toBe(0);
  });

  it('gives each tap an id of its own', async () => {
    await loads.count(machine);
    await loads.count(machine);
    expect(new Set(kept.map(({ id }) => id)).size).toBe(2);
  });

  it('undoes through the outbox, whether it has left or not', async () => {
    await loads.count(machine);
    const { id } = kept[0]!;
    await loads.undo(id);
    expect(undone).toEqual([id]);
    expect(loads.pending().size).toBe(0);
  });

  it('says so when the device has no room, and when the server refuses', async () => {
    outbox.add = () => Promise.resolve(false);
    await loads.count(machine);
    expect(said().at(-1)!.text).toContain('leave the page open');
    expect(loads.pending().size).toBe(1);
    const problem = new ApiProblem(422, 'Wrong', '', [{ field: 'at', message: 'In the future.' }]);
    refused$.next({ entry: { id: 'x', kind: 'load' } as Outgoing, problem });
    expect(said().at(-1)!.text).toBe(
      'The load was not counted: In the future. It is kept here; look at the top.',
    );
  });

  it('says so when an undo does not arrive', async () => {
    await loads.undo('bad');
    expect(said().at(-1)!.text).toContain('Undo it in the log later');
  });
});
