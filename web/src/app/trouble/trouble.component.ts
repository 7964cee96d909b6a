import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  caseState,
  caseTitle,
  dayOf,
  ENDING_WORDS,
  isMereLook,
  isRested,
  isWasher,
  sayDay,
  STOP_RULES,
  stopById,
  symptomsOf,
  type CaseRecord,
  type CodeSheet,
  type Happening,
  type LikelyTrouble,
  type Machine,
  type StopRule,
} from '@needlecase/core';
import { catchError, of } from 'rxjs';
import { BenchService } from '../data/bench.service';
import { CasesService } from '../data/cases.service';
import { ApiService } from '../data/api.service';
import { CodeSheetsService } from '../data/code-sheets.service';
import { newId } from '../data/platform';
import { narrow } from '../shared/narrow';
import { StitchComponent } from '../thread/stitch.component';
import { CaseComponent } from './case.component';
import { DangerComponent } from './danger.component';
import { SignalComponent } from '../bench/signal.component';
import { NoticeComponent, type Noticed } from './notice.component';
import { StopQuestionsComponent } from './stop-questions.component';

const CLOSED_SHOWN = 6;
const LIKELIEST = 4;

/** Cases open, resting and closed, and the way into a new one. */
@Component({
  selector: 'nc-trouble',
  imports: [
    CaseComponent,
    DangerComponent,
    NoticeComponent,
    RouterLink,
    SignalComponent,
    StitchComponent,
    StopQuestionsComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './trouble.component.html',
  styleUrl: './trouble.component.scss',
})
export class TroubleComponent {
  readonly #cases = inject(CasesService);
  readonly #router = inject(Router);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: begins a new case of a machine, perhaps at a station, by a code or by what was seen. */
  readonly machine = input<string>();
  readonly station = input<string>();
  readonly code = input<string>();
  readonly finding = input<string>();
  /** From the address: something that can hurt somebody comes first. */
  readonly danger = input<string>();

  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly unread = computed(() => (this.bench() ? undefined : this.#loaded()?.problem));
  readonly #told = computed(() =>
    this.#cases
      .all()
      .filter((record) => !isMereLook(caseState(record)))
      .map((record) => this.#tellOf(record)),
  );
  protected readonly open = computed(() => this.#told().filter(({ state }) => state !== 'closed'));
  protected readonly closed = computed(() =>
    this.#told()
      .filter(({ state, ending }) => state === 'closed' && ending !== 'mistake')
      .slice(0, CLOSED_SHOWN),
  );

  /** Every stop rule of the house’s machines, or of the one machine. */
  protected readonly rules = computed(() => {
    const machines = this.bench()?.machines ?? [];
    const asked = machines.filter(({ id }) => !this.machine() || id === this.machine());
    const kinds = new Set((asked.length ? asked : machines).map(({ kind }) => kind));
    return STOP_RULES.filter(
      (rule) => kinds.size === 0 || rule.kinds.some((one) => kinds.has(one)),
    );
  });
  /** The one that holds. */
  protected readonly holding = signal<StopRule | undefined>(undefined);
  /** Machines that it can be noted with. */
  protected readonly notable = computed(() => {
    const rule = this.holding();
    const machines = this.bench()?.machines ?? [];
    return rule ? machines.filter(({ kind }) => rule.kinds.includes(kind)) : [];
  });

  protected readonly sheets = toSignal(inject(CodeSheetsService).all$, {
    initialValue: [] as CodeSheet[],
  });
  readonly #likely = toSignal(
    inject(ApiService)
      .get<LikelyTrouble[]>('trouble/likely')
      .pipe(catchError(() => of<LikelyTrouble[]>([]))),
    { initialValue: [] as LikelyTrouble[] },
  );
  protected readonly likely = computed(
    () => new Map(this.#likely().map(({ machineId, chances }) => [machineId, chances])),
  );
  /** What is likeliest to be told in this house today, one of each symptom. */
  protected readonly likeliest = computed(() => {
    const machines = this.bench()?.machines ?? [];
    const all = machines.flatMap((machine) =>
      symptomsOf(machine.kind).map(({ id, say }) => ({
        id,
        say,
        machine,
        line: isWasher(machine.kind) ? ('water' as const) : ('air' as const),
        chance: this.likely().get(machine.id)?.[id] ?? 0,
      })),
    );
    // Of each machine its likeliest, one of each symptom, none of an open case.
    const told = new Set(this.open().map(({ title }) => title));
    const best = new Map<string, (typeof all)[number]>();
    for (const one of all.sort((a, b) => b.chance - a.chance)) {
      const taken = [...best.values()].some(({ id }) => id === one.id);
      if (!taken && !told.has(one.say) && !best.has(one.machine.id)) best.set(one.machine.id, one);
    }
    return [...best.values()].slice(0, narrow() ? 3 : LIKELIEST).filter(({ chance }) => chance > 0);
  });

  /** Opens the case of what was noticed. */
  protected nameOf(machineId: string): string {
    return this.bench()?.machines.find(({ id }) => id === machineId)?.name ?? '';
  }

  protected noticed({ machineId, finding }: Noticed): void {
    void this.#router.navigate(['/trouble'], { queryParams: { machine: machineId, finding } });
  }

  protected coded({ machineId, code }: { machineId: string; code: string }): void {
    void this.#router.navigate(['/trouble'], { queryParams: { machine: machineId, code } });
  }

  /** What to do is told at once; with a machine named it is noted as well. */
  protected stop(id: string): void {
    const rule = stopById(id);
    const machine = this.bench()?.machines.find((one) => one.id === this.machine());
    this.holding.set(rule);
    if (machine) this.note(machine);
  }

  protected note(machine: Machine, finding?: string): void {
    const rule = this.holding();
    if (!rule) return;
    const id = newId();
    this.#cases.tell(
      id,
      machine.id,
      { kind: 'stop', stop: rule.id },
      ...(finding
        ? ([{ kind: 'no-stop' }, { kind: 'answer', finding, answer: 'yes' }] satisfies Happening[])
        : []),
    );
    void this.#router.navigate(['/trouble', id]);
  }

  /** On with the case, at the machine that it is about. */
  protected onward(finding: string): void {
    const [machine] = this.notable();
    if (machine) this.note(machine, finding);
  }

  protected over(): void {
    this.holding.set(undefined);
    void this.#router.navigate(['/trouble']);
  }

  #tellOf(record: CaseRecord) {
    const state = caseState(record);
    const bench = this.bench();
    const machine = bench?.machines.find(({ id }) => id === record.machineId);
    const zone = bench?.household.zone ?? 'UTC';
    const today = bench?.today ?? dayOf(Date.now(), zone);
    const day = (instant: number) => sayDay(dayOf(instant, zone), today);
    const rests = state.until ? `rests until ${sayDay(state.until, today)}` : 'rests';
    const said = {
      open: state.fix ? 'the work is to be proved' : `open since ${day(state.openedAt)}`,
      resting: isRested(state, today) ? 'has rested: how is it now?' : rests,
      closed: `${state.ending ? ENDING_WORDS[state.ending] : ''}, ${day(state.closedAt ?? 0)}`,
    }[state.state];
    return {
      id: record.id,
      title: caseTitle(state),
      machine: machine?.name ?? '',
      state: state.state,
      ending: state.ending,
      said,
    };
  }
}
