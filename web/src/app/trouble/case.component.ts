import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  type ElementRef,
  inject,
  input,
  linkedSignal,
  untracked,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { NgbDropdownModule } from '@ng-bootstrap/ng-bootstrap';
import {
  ANSWER_WORDS,
  causeById,
  ENDING_WORDS,
  isRested,
  PLACE_NAMES,
  plusDays,
  REMINDER_SAID,
  sayCaseEvent,
  sayCode,
  sayDay,
  sayFinding,
  sayOutcome,
  stationById,
  symptomsAt,
  type Answer,
  type CaseEnding,
  type CodeClass,
  type CodeSeen,
  type CodeSheet,
  type Happening,
  type StopRule,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { CodeSheetsService } from '../data/code-sheets.service';
import { HouseholdService } from '../data/household.service';
import { VisitsService } from '../data/visits.service';
import { ToastsService } from '../data/toasts.service';
import { withoutVersion } from '../forms/onto';
import { CaseOnScreen } from './case-on-screen';
import { CodeEntryComponent } from './code-entry.component';
import { NumbersComponent } from '../shared/numbers.component';
import { FirstComponent } from './first.component';
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

/** Under this name a machine keeps its own reset sequence. */
const DOOR_RESET = 'door-reset';

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

/** One trouble, from what a person notices to the proof that it is mended. */
@Component({
  selector: 'nc-case',
  imports: [
    CaseProofComponent,
    CodeEntryComponent,
    FirstComponent,
    FixComponent,
    LookComponent,
    NgbDropdownModule,
    NumbersComponent,
    RouterLink,
    SuspectsComponent,
    TellComponent,
  ],
  providers: [CaseOnScreen],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './case.component.html',
  styleUrl: './case.component.scss',
})
export class CaseComponent {
  readonly #visits = inject(VisitsService);
  readonly #toasts = inject(ToastsService);
  readonly #households = inject(HouseholdService);
  readonly #bench = inject(BenchService);
  readonly #codeSheets = inject(CodeSheetsService);
  protected readonly on = inject(CaseOnScreen);

  /** From the address: the case; a new one where it is not known yet. */
  readonly id = input<string>();
  /** From the address, for a new case: the machine, where the trouble is looked for, what was seen. */
  readonly machine = input<string>();
  readonly station = input<string>();
  readonly code = input<string>();
  readonly finding = input<string>();

  protected readonly place = computed(() => {
    const station = this.station();
    return station && this.on.stations().some(({ id }) => id === station)
      ? stationById(station)
      : undefined;
  });
  protected readonly sheets = toSignal(this.#codeSheets.all$, { initialValue: [] as CodeSheet[] });

  /** A code that was typed elsewhere. */
  protected readonly typedCode = linkedSignal(() => this.code());
  protected readonly byCode = linkedSignal(() => Boolean(this.typedCode()));

  protected readonly symptoms = computed(() => {
    const { symptoms = [] } = this.on.start() ?? {};
    const answers = this.on.state()?.answers ?? {};
    const place = this.place();
    const owner = this.on.owner();
    const here = place && owner ? symptomsAt(owner, place.id) : undefined;
    return symptoms.filter(
      ({ id }) => answers[id] === undefined && (here === undefined || here.includes(id)),
    );
  });
  protected readonly given = computed((): Given[] => {
    const { answers = {}, codes = [] } = this.on.state() ?? {};
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
  protected readonly run = computed(() => {
    const runId = this.on.state()?.fix?.runId;
    return this.on.bench()?.runs.find(({ id }) => id === runId);
  });
  protected readonly timeline = computed(
    () =>
      this.on.record()?.events.map((event) => ({
        id: event.id,
        when: this.on.day(Date.parse(event.at)),
        say: sayCaseEvent(event),
      })) ?? [],
  );
  protected readonly outcome = computed(() => {
    const state = this.on.measured();
    const kind = this.on.owner()?.kind;
    return state?.state === 'closed' && kind ? sayOutcome(state, kind) : '';
  });
  protected readonly rested = computed(() => {
    const state = this.on.state();
    return state !== undefined && isRested(state, this.on.today());
  });
  protected readonly summary = computed(() => `/api/v1/cases/${this.on.caseId()}/summary.pdf`);
  protected readonly rests = RESTS;
  protected readonly endings = ENDINGS;
  protected readonly endingWords = ENDING_WORDS;
  protected readonly reminderSaid = REMINDER_SAID;

  private readonly lead = viewChild<ElementRef<HTMLElement>>('lead');

  constructor() {
    this.on.asked.set({ id: this.id, machine: this.machine });
    const told = effect(() => {
      const finding = this.finding();
      const known = this.on.start()?.symptoms.some(({ id }) => id === finding);
      if (!finding || !known || !this.on.loaded()) return;
      told.destroy();
      untracked(() => this.answer(finding, 'yes'));
    });
    // The next thing to do is at the top; an answer given further down leads back to it.
    const step = computed(() => {
      const { check, fix } = this.on.next();
      const { state, fix: begun } = this.on.state() ?? {};
      return [state, begun?.at, this.on.found()?.cause, check?.id, fix?.cause].join('/');
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
    return sayDay(day, this.on.today());
  }

  /** Whether the next look is asked by the ladder of a locked door. */
  protected readonly askedFirst = computed(
    () =>
      this.on.view()?.ladder?.[0]?.id === 'level' && this.on.next().check?.id === 'locked-empty',
  );

  /** What stands behind the glass of a locked door. */
  protected level(found: 'none' | 'water'): void {
    this.answer('locked-empty', found === 'none' ? 'yes' : 'no');
  }

  /** Where this house has what a stop rule shuts off. Outside a house that smells of gas nobody looks for a valve. */
  protected placesFor({ id, shuts = [] }: StopRule): { name: string; where: string }[] {
    const places = this.on.bench()?.household.places ?? {};
    return shuts.flatMap((one) => {
      const where = places[one];
      if (!where) return [];
      const name =
        id === 'gas-smell' ? `${PLACE_NAMES[one]}, for the gas service` : PLACE_NAMES[one];
      return [{ name, where }];
    });
  }

  protected readonly doorReset = DOOR_RESET;

  /** Keeps the maker’s reset sequence with the machine. */
  protected keepWay(way: string): void {
    const machine = this.on.owner();
    if (!machine) return;
    const ways = { ...machine.ways, [DOOR_RESET]: way };
    this.#households
      .saveMachine(machine.id, { ...withoutVersion(machine), ways }, machine.version)
      .subscribe({
        next: () => {
          this.#bench.refresh();
          this.#toasts.show('Kept with this machine.');
        },
        error: ({ title, detail }: ApiProblem) =>
          this.#toasts.show(`${title} ${detail}`, { problem: true }),
      });
  }

  protected answer(finding: string, answer: Answer): void {
    if (!this.on.record() && answer === 'yes' && this.on.reopened({ finding })) return;
    // A second tap says the same.
    if (this.on.state()?.answers[finding] === answer) return;
    this.on.tell({ kind: 'answer', finding, answer });
  }

  protected seen(code: CodeSeen): void {
    this.typedCode.set(undefined);
    this.byCode.set(false);
    if (!this.on.record() && code.code && this.on.reopened({ code: code.code })) return;
    this.on.tell({ kind: 'code', code });
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

  protected begin(cause: string, task: string): void {
    const machineId = this.on.machineId();
    if (!machineId) return;
    this.#visits.start([{ machineId, task }], ({ id }) =>
      this.on.tell({ kind: 'fix', cause, task, runId: id }),
    );
  }

  protected isLookedAt(cause: string): string {
    return causeById(cause).name;
  }

  protected rest(days?: number): void {
    this.on.tell({ kind: 'rest', ...(days ? { until: plusDays(this.on.today(), days) } : {}) });
  }

  protected close(ending: CaseEnding): void {
    this.on.tell({ kind: 'close', ending });
  }

  protected note(field: HTMLTextAreaElement): void {
    const note = field.value.trim();
    if (note) this.on.tell({ kind: 'note', note: note.slice(0, 2000) });
    field.value = '';
  }
}
