import { computed, inject, Injectable, signal, type Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import {
  caseState,
  caseTitle,
  dayOf,
  goesOn,
  lookedFix,
  returning,
  sayDay,
  stopsOf,
  stopsToAsk,
  situationIn,
  troubleStart,
  troubleView,
  withFigures,
  type Machine,
  type TroubleStart,
  type Happening,
} from '@needlecase/core';
import { catchError, distinctUntilChanged, of, switchMap } from 'rxjs';
import { ApiService } from '../data/api.service';
import { lookNear } from '../data/near';
import { BenchService } from '../data/bench.service';
import { CasesService } from '../data/cases.service';
import { newId } from '../data/platform';
import { ToastsService } from '../data/toasts.service';

/** What can be said of a machine whose records cannot be read now: how it is built. */
const withoutRecords = ({ kind, features }: Machine): TroubleStart => ({
  ...troubleStart(kind),
  situation: { kind, features },
  said: {},
  figures: {},
  proofs: [],
});

/** The case on screen: what was told of it, whose machine it is, and what the engine makes of it. */
@Injectable()
export class CaseOnScreen {
  readonly #api = inject(ApiService);
  readonly #router = inject(Router);
  readonly #cases = inject(CasesService);
  readonly #toasts = inject(ToastsService);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** The case and the machine that the address asks for; a new case where none is named. */
  readonly asked = signal<{
    id: Signal<string | undefined>;
    machine: Signal<string | undefined>;
  }>({ id: signal(undefined), machine: signal(undefined) });
  readonly #fresh = newId();
  readonly caseId = computed(() => this.asked().id() ?? this.#fresh);
  readonly loaded = this.#cases.loaded;
  /** The cases were read, or cannot be now. */
  readonly casesAsked = this.#cases.asked;
  readonly record = computed(() => this.#cases.all().find(({ id }) => id === this.caseId()));
  readonly state = computed(() => {
    const record = this.record();
    return record && caseState(record);
  });
  readonly missing = computed(
    () => this.asked().id() !== undefined && !this.record() && this.#cases.loaded(),
  );
  readonly title = computed(() => {
    const state = this.state();
    return state ? caseTitle(state) : '';
  });

  readonly bench = computed(() => this.#loaded()?.value);
  readonly unread = computed(() => (this.bench() ? undefined : this.#loaded()?.problem));
  readonly machineId = computed(() => this.record()?.machineId ?? this.asked().machine());
  readonly owner = computed(() => this.bench()?.machines.find(({ id }) => id === this.machineId()));
  readonly stations = computed(
    () =>
      this.bench()?.states.find(({ machineId }) => machineId === this.machineId())?.stations ?? [],
  );
  readonly start = toSignal(
    toObservable(this.owner).pipe(
      distinctUntilChanged((a, b) => a?.id === b?.id && a?.version === b?.version),
      switchMap((machine) =>
        machine
          ? this.#api
              .get<TroubleStart>(`machines/${machine.id}/trouble`)
              .pipe(catchError(() => of(withoutRecords(machine))))
          : of(undefined),
      ),
    ),
  );

  /** Those that hold, from what the phone has: nobody waits here for a server. */
  readonly holding = computed(() => {
    const told = this.state()?.stops ?? [];
    const kind = this.owner()?.kind;
    return kind ? stopsOf(kind).filter(({ id }) => told.includes(id)) : [];
  });
  /** Stop questions that belong to what was told and were not asked yet. */
  readonly toAsk = computed(() => {
    const machine = this.owner();
    const state = this.state();
    return machine && state?.state === 'open' ? stopsToAsk(machine, state) : [];
  });
  /** Whether anything was told yet: an answer, a code, what holds. */
  readonly told = computed(() => {
    const { answers = {}, stops = [], codes = [] } = this.state() ?? {};
    return Object.keys(answers).length + stops.length + codes.length > 0;
  });
  /** What the engine makes of what was told; nothing before anything was. */
  readonly view = computed(() => {
    const start = this.start();
    const state = this.state();
    if (!start || !state || !this.told()) return undefined;
    const { answers, stops } = state;
    const from = performance.now();
    const view = troubleView(situationIn(start.situation, state), answers, stops, start.said);
    performance.measure('trouble answer', { start: from });
    return view;
  });
  /** With the figures that the log has from before the work, and since. */
  readonly measured = computed(() => {
    const state = this.state();
    const kind = this.owner()?.kind;
    const { figures = {}, proofs = [] } = this.start() ?? {};
    return state && kind && withFigures(state, kind, figures, proofs);
  });
  readonly found = computed(() => {
    const cause = this.state()?.found?.cause;
    return cause === undefined ? undefined : lookedFix(cause);
  });
  readonly next = computed(() => {
    const next = this.view()?.next;
    return {
      check: next && 'check' in next ? next.check : undefined,
      fix: next && 'fix' in next ? next.fix : undefined,
    };
  });

  /** Adds to the case; the first time it is opened. */
  constructor() {
    lookNear(this.machineId);
  }

  tell(...happenings: Happening[]): void {
    const machineId = this.machineId();
    if (!machineId) return;
    this.#cases.tell(this.caseId(), machineId, ...happenings);
    if (this.asked().id() === undefined) {
      void this.#router.navigate(['/trouble', this.caseId()], { replaceUrl: true });
    }
  }

  /** What is told in an open case goes on there; what was closed within its time is open again. */
  reopened(told: { finding?: string; code?: string }): boolean {
    if (this.wentOn(told)) return true;
    const machineId = this.machineId();
    const before = machineId && returning(this.#cases.all(), machineId, told, Date.now());
    if (!before) return false;
    this.#cases.tell(before.id, before.machineId, { kind: 'reopen' });
    this.#toasts.show('This came back within its time: the case from before is open again.');
    void this.#router.navigate(['/trouble', before.id], { replaceUrl: true });
    return true;
  }

  /** What is told already in an open case of this machine goes on there. */
  wentOn(told: { finding?: string; code?: string }): boolean {
    const machineId = this.machineId();
    const open = machineId && goesOn(this.#cases.all(), machineId, told);
    if (!open) return false;
    this.#toasts.show('This is told already: here its case goes on.');
    void this.#router.navigate(['/trouble', open.id], { replaceUrl: true });
    return true;
  }

  /** None of the stop rules that were asked holds. */
  noStop(): void {
    this.tell({ kind: 'no-stop', asked: this.toAsk().map(({ id }) => id) });
  }

  /** Calendar date. */
  today(): string {
    return this.bench()?.today ?? dayOf(Date.now(), 'UTC');
  }

  /** The day of an instant, in words. */
  day(instant: number): string {
    const zone = this.bench()?.household.zone ?? 'UTC';
    return sayDay(dayOf(instant, zone), this.today());
  }
}
