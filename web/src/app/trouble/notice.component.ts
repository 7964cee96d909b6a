import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
  type ElementRef,
} from '@angular/core';
import {
  readCode,
  symptomFinder,
  symptomsOf,
  type Answer,
  type CodeSheet,
  type Machine,
  type Sense,
} from '@needlecase/core';
import { SingleTaps } from '../shared/single-taps';
import { SensesComponent } from './senses.component';

/** Something noticed, at a machine. */
export interface Noticed {
  machineId: string;
  finding: string;
}

/** So many are told for what was typed. */
const MOST = 8;
/** A letter or two with digits, digits alone: "E 18", "4E2". */
const LIKE_A_CODE = /^[\p{L}]{0,3}[ .:-]?\d{1,4}[\p{L}]?\d?$/u;

const HEADS: Record<Sense, string> = {
  see: 'What do you see?',
  hear: 'What do you hear?',
  smell: 'What do you smell?',
  feel: 'What do you feel?',
  read: 'What does the display say?',
};

/**
 * What a person notices: found by whatever words, or picked by the sense that notices it, at one machine or at any of
 * the house. The machine is picked in the same tap.
 */
@Component({
  selector: 'nc-notice',
  imports: [SensesComponent],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows().length || codes().length || typed().trim() || sense()) {
      <div class="found" aria-live="polite">
        @if (!typed().trim() && sense()) {
          <p class="head">
            <b>{{ heads[sense()!] }}</b>
            <button type="button" class="btn btn-plain" (click)="sense.set(undefined)">
              Another sense
            </button>
          </p>
        }
        @for (code of codes(); track code.machine.id) {
          <button
            type="button"
            class="choice code"
            (click)="coded.emit({ machineId: code.machine.id, code: typed().trim() })"
          >
            On the display: {{ typed().trim() }}
            @if (machines().length > 1) {
              <span class="soft">{{ code.machine.name }}</span>
            }
            @if (code.says) {
              <span class="soft">{{ code.says }}</span>
            }
          </button>
        }
        @if (!typed().trim() && sense() === 'read') {
          @for (machine of machines(); track machine.id) {
            <button
              type="button"
              class="choice"
              (click)="coded.emit({ machineId: machine.id, code: '' })"
            >
              A code or lamps{{ machines().length > 1 ? ': ' + machine.name : '' }}
            </button>
          }
        }
        @for (row of rows(); track row.id) {
          @if (machines().length === 1) {
            <button
              type="button"
              class="choice"
              (click)="choose({ machineId: row.machines[0]!.id, finding: row.id })"
            >
              {{ row.say }}
            </button>
          } @else {
            <div class="row" role="group" [attr.aria-label]="row.say">
              <b>{{ row.say }}</b>
              <span class="at">
                @for (machine of row.machines; track machine.id) {
                  <button
                    type="button"
                    class="choice"
                    [attr.aria-label]="row.say + ': ' + machine.name"
                    (click)="choose({ machineId: machine.id, finding: row.id })"
                  >
                    {{ machine.name }}
                  </button>
                }
              </span>
            </div>
          }
        } @empty {
          @if (typed().trim() && !codes().length) {
            <p class="soft">
              Nothing fits these words. Try others, or fewer; or say what is nearest to it.
            </p>
          }
        }
      </div>
    }
    @if (!typed().trim() && !sense()) {
      <nc-senses (choose)="by($event)" />
    }
    <label class="visually-hidden" for="symptom">Describe it in a few words</label>
    <input
      id="symptom"
      class="form-control"
      autocomplete="off"
      autocapitalize="off"
      enterkeyhint="search"
      maxlength="200"
      placeholder="In your words, or the code"
      [value]="typed()"
      (input)="typed.set(field.value)"
      #field
    />
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
    }
    .form-control {
      border-color: var(--ink);
      border-radius: 1.1rem;
      min-height: 58px;
      padding-inline: 1.1rem;
    }
    .head {
      align-items: center;
      display: flex;
      gap: 1rem;
      justify-content: space-between;
      margin: 0 0 0.4rem;
    }
    .choice {
      @include choices;
    }
    .code .soft {
      display: block;
      font-size: 0.9rem;
    }
    .row {
      @include seam(bottom, 1px);
      padding: 0.35rem 0 0.1rem;
    }
    .row b {
      display: block;
      margin-bottom: 0.15rem;
    }
    .found {
      margin-bottom: 0.7rem;
    }
    nc-senses {
      margin-bottom: 0.7rem;
    }
  `,
})
export class NoticeComponent {
  /** At which something may be noticed. */
  readonly machines = input.required<readonly Machine[]>();
  readonly sheets = input<readonly CodeSheet[]>([]);
  /** What was answered already of the one machine. */
  readonly answered = input<Readonly<Record<string, Answer>>>({});
  /** Only these symptoms. */
  readonly only = input<readonly string[]>();
  /** Chances by machine and symptom: what is likelier comes first. */
  readonly likely = input<ReadonlyMap<string, Readonly<Record<string, number>>>>(new Map());
  /** Typed elsewhere. */
  readonly words = input('');

  readonly told = output<Noticed>();
  /** A code was typed, or is going to be. */
  readonly coded = output<{ machineId: string; code: string }>();

  protected readonly typed = linkedSignal(() => this.words());
  protected readonly sense = signal<Sense | undefined>(undefined);
  protected readonly heads = HEADS;
  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');

  /** Every symptom of the machines, each with those that can have it, the likeliest first. */
  readonly #symptoms = computed(() => {
    const known = new Map<string, { id: string; say: string; sense: Sense; machines: Machine[] }>();
    for (const machine of this.machines()) {
      for (const { id, say, sense } of symptomsOf(machine.kind)) {
        if (this.answered()[id] !== undefined || this.only()?.includes(id) === false) continue;
        const row = known.get(id) ?? { id, say, sense, machines: [] };
        row.machines.push(machine);
        known.set(id, row);
      }
    }
    for (const row of known.values()) {
      row.machines.sort((a, b) => this.#chance(b.id, row.id) - this.#chance(a.id, row.id));
    }
    return [...known.values()];
  });
  readonly #find = computed(() => symptomFinder(this.#symptoms()));

  protected readonly rows = computed(() => {
    const typed = this.typed().trim();
    if (typed) {
      const byId = new Map(this.#symptoms().map((one) => [one.id, one]));
      return this.#find()(typed)
        .slice(0, MOST)
        .map((id) => byId.get(id)!);
    }
    const sense = this.sense();
    if (!sense) return [];
    const most = (row: { id: string; machines: Machine[] }) =>
      Math.max(...row.machines.map(({ id }) => this.#chance(id, row.id)));
    return this.#symptoms()
      .filter((one) => one.sense === sense)
      .sort((a, b) => most(b) - most(a));
  });

  /** A code typed here: one of a machine’s sheets, or what looks like one. */
  protected readonly codes = computed(() => {
    const typed = this.typed().trim();
    if (!typed) return [];
    const read = this.machines().map((machine) => {
      const reading = readCode(typed, this.sheets(), machine);
      return { machine, says: reading.is === 'found' ? reading.match.row.says : '' };
    });
    const known = read.filter(({ says }) => says);
    return known.length > 0 || !LIKE_A_CODE.test(typed) ? known : read;
  });

  #chance(machineId: string, symptom: string): number {
    return this.likely().get(machineId)?.[symptom] ?? 0;
  }

  protected by(sense: Sense): void {
    this.sense.set(sense);
    if (sense === 'read') this.field().nativeElement.focus();
  }

  protected choose(one: Noticed): void {
    this.typed.set('');
    this.sense.set(undefined);
    this.told.emit(one);
  }
}
