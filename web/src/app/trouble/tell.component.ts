import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import {
  readCode,
  symptomFinder,
  type CodeSheet,
  type Machine,
  type Sense,
  type SymptomView,
} from '@needlecase/core';
import { SingleTaps } from '../shared/single-taps';

const SENSES: Record<Sense, string> = {
  see: 'What you see',
  hear: 'What you hear',
  smell: 'What you smell',
  feel: 'What you feel',
  read: 'What the display says',
};

/** So many are told for what was typed. */
const MOST = 8;
/** A letter or two with digits, digits alone: "E 18", "4E2". */
const LIKE_A_CODE = /^[\p{L}]{0,3}[ .:-]?\d{1,4}[\p{L}]?\d?$/u;

/** What a person notices: found by whatever words, or picked by the sense that notices it. */
@Component({
  selector: 'nc-tell',
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="visually-hidden" for="symptom">Describe it in a few words</label>
    <input
      id="symptom"
      class="form-control"
      autocomplete="off"
      maxlength="120"
      placeholder="In your own words, or a code"
      [value]="typed()"
      (input)="typed.set(field.value)"
      #field
    />
    @if (asCode(); as code) {
      <button type="button" class="choice code" (click)="coded.emit(code)">
        On the display: {{ code }}
      </button>
    }
    @if (typed().trim()) {
      @for (symptom of found(); track symptom.id) {
        <button type="button" class="choice" (click)="choose(symptom.id)">{{ symptom.say }}</button>
      } @empty {
        @if (!asCode()) {
          <p class="soft">
            Nothing fits these words. Try others, or fewer; or say what is nearest to it.
          </p>
        }
      }
    } @else {
      @for (group of groups(); track group.name) {
        <fieldset>
          <legend>{{ group.name }}</legend>
          @for (symptom of group.symptoms; track symptom.id) {
            <button type="button" class="choice" (click)="choose(symptom.id)">
              {{ symptom.say }}
            </button>
          }
        </fieldset>
      }
    }
  `,
  styles: `
    @use 'mixins' as *;

    .form-control {
      @include touch;
    }
    fieldset {
      margin-top: 0.6rem;
    }
    legend {
      font-size: 1rem;
      font-weight: 650;
      margin-bottom: 0.3rem;
    }
    .choice {
      @include choices;
    }
  `,
})
export class TellComponent {
  readonly symptoms = input.required<readonly SymptomView[]>();
  /** Whose display may show a code. */
  readonly machine = input<Machine>();
  readonly sheets = input<readonly CodeSheet[]>([]);
  readonly told = output<string>();
  /** A code was typed. */
  readonly coded = output<string>();
  protected readonly typed = signal('');

  readonly #find = computed(() => symptomFinder(this.symptoms()));
  /** What fits best, first. */
  protected readonly found = computed(() => {
    const byId = new Map(this.symptoms().map((one) => [one.id, one]));
    return this.#find()(this.typed())
      .slice(0, MOST)
      .map((id) => byId.get(id)!);
  });
  /** A code typed here: one of a sheet, or what looks like one. */
  protected readonly asCode = computed(() => {
    const typed = this.typed().trim();
    const machine = this.machine();
    if (!typed || !machine) return '';
    const known = readCode(typed, this.sheets(), machine).is === 'found';
    return known || LIKE_A_CODE.test(typed) ? typed : '';
  });
  protected readonly groups = computed(() =>
    Object.entries(SENSES)
      .map(([sense, name]) => ({
        name,
        symptoms: this.symptoms().filter((symptom) => symptom.sense === sense),
      }))
      .filter(({ symptoms }) => symptoms.length),
  );

  protected choose(id: string): void {
    this.typed.set('');
    this.told.emit(id);
  }
}
