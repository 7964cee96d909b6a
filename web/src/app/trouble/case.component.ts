import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap';
import {
  ANSWER_WORDS,
  caseState,
  caseTitle,
  causeById,
  dayOf,
  ENDING_WORDS,
  isRested,
  lookedFix,
  plusDays,
  REMINDER_SAID,
  returning,
  sayCaseEvent,
  sayCode,
  sayDay,
  sayFinding,
  sayOutcome,
  situationIn,
  stationById,
  symptomsAt,
  troubleStart,
  troubleView,
  withFigures,
  type Answer,
  type CaseEnding,
  type CodeClass,
  type CodeSeen,
  type CodeSheet,
  type Machine,
  type TroubleStart,
} from '@needlecase/core';
import { catchError, distinctUntilChanged, of, switchMap } from 'rxjs';
import { ApiService, type ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { CasesService, type Happening } from '../data/cases.service';
import { CodeSheetsService } from '../data/code-sheets.service';
import { RunsService } from '../data/runs.service';
import { ToastsService } from '../data/toasts.service';
import { CodeEntryComponent } from './code-entry.component';
import { FixComponent } from './fix.component';
import { LookComponent } from './look.component';
import { CaseProofComponent } from './proof.component';
import { SuspectsComponent } from './suspects.component';
import { TellComponent } from './tell.component';

/** Something that was told, and what takes it back. */
interface Given {
  id: string;
  say: string;
  answer: string;
  back: Happening;
}

const RESTS = [
  { days: 3, say: 'for three days' },
  { days: 7, say: 'for a week' },
  { days: 30, say: 'for a month' },
];
const ENDINGS: readonly { ending: CaseEnding; say: string }[] = [
  { ending: 'fixed', say: 'It is fixed' },
  { ending: 'by-itself', say: 'It went away by itself' },
  { ending: 'professional', say: 'A professional takes it over' },
  { ending: 'mistake', say: 'It was a mistake: keep it out of the log' },
];

/** What can be said of a machine whose records cannot be read now: how it is built. */
const withoutRecords = ({ kind, features }: Machine): TroubleStart => ({
  ...troubleStart(kind),
  situation: { kind, features },
  said: {},
  figures: {},
});

/** One trouble, from what a person notices to the proof that it is mended. */
@Component({
  selector: 'nc-case',
  imports: [
    CaseProofComponent,
    CodeEntryComponent,
    FixComponent,
    LookComponent,
    NgbDropdownModule,
    RouterLink,
    SuspectsComponent,
    TellComponent,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './case.component.html',
  styleUrl: './case.component.scss',
})
export class CaseComponent {
  readonly #api = inject(ApiService);
  readonly #router = inject(Router);
  readonly #runs = inject(RunsService);
  readonly #cases = inject(CasesService);
  readonly #toasts = inject(ToastsService);
  readonly #codeSheets = inject(CodeSheetsService);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: the case; a new one where it is not known yet. */
  readonly id = input<string>();
  /** From the address, for a new case: the machine, and where on it the trouble is looked for. */
  readonly machine = input<string>();
  readonly station = input<string>();
  readonly code = input<string>();

  readonly #fresh = crypto.randomUUID();
  protected readonly caseId = computed(() => this.id() ?? this.#fresh);
  protected readonly record = computed(() =>
    this.#cases.all().find(({ id }) => id === this.caseId()),
  );
  protected readonly state = computed(() => {
    const record = this.record();
    return record && caseState(record);
  });
  protected readonly missing = computed(
    () => this.id() !== undefined && !this.record() && this.#cases.loaded(),
  );
  protected readonly title = computed(() => {
    const state = this.state();
    return state ? caseTitle(state) : '';
  });

  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly unread = computed(() => (this.bench() ? undefined : this.#loaded()?.problem));
  protected readonly machineId = computed(() => this.record()?.machineId ?? this.machine());
  protected readonly owner = computed(() =>
    this.bench()?.machines.find(({ id }) => id === this.machineId()),
  );
  protected readonly stations = computed(
    () =>
      this.bench()?.states.find(({ machineId }) => machineId === this.machineId())?.stations ?? [],
  );
  protected readonly place = computed(() => {
    const station = this.station();
    return station && this.stations().some(({ id }) => id === station)
      ? stationById(station)
      : undefined;
  });
  protected readonly start = toSignal(
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
  protected readonly sheets = toSignal(this.#codeSheets.all$, { initialValue: [] as CodeSheet[] });

  /** Said before anything was told: none of the stop rules holds. */
  readonly #noStops = signal(false);
  protected readonly stopsAsked = computed(() => this.#noStops() || this.state()?.stopsAsked);
  protected readonly byCode = linkedSignal(() => Boolean(this.code()));

  protected readonly symptoms = computed(() => {
    const { symptoms = [] } = this.start() ?? {};
    const answers = this.state()?.answers ?? {};
    const place = this.place();
    const owner = this.owner();
    const here = place && owner ? symptomsAt(owner, place.id) : undefined;
    return symptoms.filter(
      ({ id }) => answers[id] === undefined && (here === undefined || here.includes(id)),
    );
  });
  protected readonly given = computed((): Given[] => {
    const { answers = {}, codes = [] } = this.state() ?? {};
    return [
      ...Object.entries(answers).map(([id, answer]): Given => ({
        id,
        say: sayFinding(id),
        answer: ANSWER_WORDS[answer],
        back: { kind: 'take-back', finding: id },
      })),
      ...codes.map(({ event, ...code }): Given => ({
        id: event,
        say: sayCode(code),
        answer: 'on the display',
        back: { kind: 'code-back', of: event },
      })),
    ];
  });
  protected readonly view = computed(() => {
    const start = this.start();
    const state = this.state();
    if (!start || !state) return undefined;
    const { answers, stops, codes } = state;
    if (Object.keys(answers).length + stops.length + codes.length === 0) return undefined;
    const from = performance.now();
    const view = troubleView(situationIn(start.situation, state), answers, stops, start.said);
    performance.measure('trouble answer', { start: from });
    return view;
  });
  /** With the figures that the log has from before the work, and since. */
  protected readonly measured = computed(() => {
    const state = this.state();
    return state && withFigures(state, this.start()?.figures ?? {});
  });
  protected readonly found = computed(() => {
    const cause = this.state()?.found?.cause;
    return cause === undefined ? undefined : lookedFix(cause);
  });
  protected readonly next = computed(() => {
    const next = this.view()?.next;
    return {
      check: next && 'check' in next ? next.check : undefined,
      fix: next && 'fix' in next ? next.fix : undefined,
    };
  });
  protected readonly run = computed(() => {
    const runId = this.state()?.fix?.runId;
    return this.bench()?.runs.find(({ id }) => id === runId);
  });
  protected readonly timeline = computed(
    () =>
      this.record()?.events.map((event) => ({
        id: event.id,
        when: this.#day(Date.parse(event.at)),
        say: sayCaseEvent(event),
      })) ?? [],
  );
  protected readonly outcome = computed(() => {
    const state = this.measured();
    return state?.state === 'closed' ? sayOutcome(state) : '';
  });
  protected readonly rested = computed(() => {
    const state = this.state();
    return state !== undefined && isRested(state, this.#today());
  });
  protected readonly summary = computed(() => `/api/v1/cases/${this.caseId()}/summary.pdf`);
  protected readonly rests = RESTS;
  protected readonly endings = ENDINGS;
  protected readonly endingWords = ENDING_WORDS;
  protected readonly reminderSaid = REMINDER_SAID;

  private readonly lead = viewChild<ElementRef<HTMLElement>>('lead');

  constructor() {
    // The next thing to do is at the top; an answer given further down leads back to it.
    const step = computed(() => {
      const { check, fix } = this.next();
      const { state, fix: begun } = this.state() ?? {};
      return [state, begun?.at, this.found()?.cause, check?.id, fix?.cause].join('/');
    });
    let before: string | undefined;
    effect(() => {
      const now = step();
      if (before !== undefined && now !== before) {
        const lead = this.lead()?.nativeElement;
        const top = lead?.getBoundingClientRect().top ?? 0;
        if (lead && (top < 0 || top > innerHeight / 2)) lead.scrollIntoView({ block: 'start' });
      }
      before = now;
    });
  }

  protected sayDate(day: string): string {
    return sayDay(day, this.#today());
  }

  protected tell(...happenings: Happening[]): void {
    const machineId = this.machineId();
    if (!machineId) return;
    const first = !this.record();
    const open = first && this.#noStops() ? [{ kind: 'no-stop' } as Happening] : [];
    this.#cases.tell(this.caseId(), machineId, ...open, ...happenings);
    if (this.id() === undefined) {
      void this.#router.navigate(['/trouble', this.caseId()], { replaceUrl: true });
    }
  }

  protected answer(finding: string, answer: Answer): void {
    if (!this.record() && answer === 'yes' && this.#reopened({ finding })) return;
    // A second tap says the same.
    if (this.state()?.answers[finding] === answer) return;
    this.tell({ kind: 'answer', finding, answer });
  }

  protected seen(code: CodeSeen): void {
    this.byCode.set(false);
    if (!this.record() && code.code && this.#reopened({ code: code.code })) return;
    this.tell({ kind: 'code', code });
  }

  /** What was closed within its time and comes back goes on where it was. */
  #reopened(told: { finding?: string; code?: string }): boolean {
    const machineId = this.machineId();
    const before = machineId && returning(this.#cases.all(), machineId, told, Date.now());
    if (!before) return false;
    this.#cases.tell(before.id, before.machineId, { kind: 'reopen' });
    this.#toasts.show('This came back within its time: the case from before is open again.');
    void this.#router.navigate(['/trouble', before.id], { replaceUrl: true });
    return true;
  }

  protected addToSheet({
    sheet,
    code,
    class: about,
  }: {
    sheet: CodeSheet;
    code: string;
    class: CodeClass;
  }): void {
    this.#toasts.show(`${code} is not on the sheet ${sheet.maker} ${sheet.family} yet.`, {
      action: {
        label: 'Add it',
        do: () => {
          const rows = [...sheet.rows, { code, says: 'Added by hand', class: about }];
          this.#codeSheets.change(sheet, { rows }).subscribe({
            next: () => this.#toasts.show(`${code} is on the sheet now.`),
            error: (problem: ApiProblem) =>
              this.#toasts.show(problem.errors[0]?.message ?? problem.title, { problem: true }),
          });
        },
      },
    });
  }

  protected noStop(): void {
    if (this.record()) this.tell({ kind: 'no-stop' });
    else this.#noStops.set(true);
  }

  protected begin(cause: string, task: string): void {
    const machineId = this.machineId();
    if (!machineId) return;
    this.#runs.start([{ machineId, task }], ({ id }) =>
      this.tell({ kind: 'fix', cause, task, runId: id }),
    );
  }

  protected isLookedAt(cause: string): string {
    return causeById(cause).name;
  }

  protected rest(days?: number): void {
    this.tell({ kind: 'rest', ...(days ? { until: plusDays(this.#today(), days) } : {}) });
  }

  protected close(ending: CaseEnding): void {
    this.tell({ kind: 'close', ending });
  }

  protected note(field: HTMLTextAreaElement): void {
    const note = field.value.trim();
    if (note) this.tell({ kind: 'note', note: note.slice(0, 2000) });
    field.value = '';
  }

  #today(): string {
    return this.bench()?.today ?? dayOf(Date.now(), 'UTC');
  }

  #day(instant: number): string {
    const zone = this.bench()?.household.zone ?? 'UTC';
    return sayDay(dayOf(instant, zone), this.#today());
  }
}
