import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { SAME_WORDS, type Sense, type SymptomView } from '@needlecase/core';
import MiniSearch from 'minisearch';

const SENSES: Record<Sense, string> = {
  see: 'What you see',
  hear: 'What you hear',
  smell: 'What you smell',
  feel: 'What you feel',
  read: 'What the display says',
};

/** What a person notices, found as it is typed, grouped by the sense that notices it. */
@Component({
  selector: 'nc-tell',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="visually-hidden" for="symptom">Describe it in a few words</label>
    <input
      id="symptom"
      class="form-control"
      autocomplete="off"
      maxlength="120"
      placeholder="In a few words: slow, smell, long"
      [value]="typed()"
      (input)="typed.set(field.value)"
      #field
    />
    @for (group of groups(); track group.name) {
      <fieldset>
        <legend>{{ group.name }}</legend>
        @for (symptom of group.symptoms; track symptom.id) {
          <button type="button" class="choice" (click)="choose(symptom.id)">
            {{ symptom.say }}
          </button>
        }
      </fieldset>
    } @empty {
      <p class="soft">
        Nothing fits these words. Try others, or fewer; or say what is nearest to it.
      </p>
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
  readonly told = output<string>();
  protected readonly typed = signal('');

  readonly #search = computed(() => {
    const search = new MiniSearch<SymptomView & { words: string }>({
      fields: ['say', 'words'],
      searchOptions: {
        prefix: true,
        fuzzy: (term) => (term.length > 5 ? 0.3 : term.length > 4 ? 0.2 : false),
        combineWith: 'AND',
        boost: { say: 2 },
      },
    });
    search.addAll(this.symptoms().map((one) => ({ ...one, words: sameAs(one.say) })));
    return search;
  });

  protected readonly groups = computed(() => {
    const typed = this.typed().trim();
    const found = new Set<string>(
      typed
        ? this.#search()
            .search(typed)
            .map(({ id }) => id as string)
        : [],
    );
    const fitting = this.symptoms().filter(({ id }) => !typed || found.has(id));
    return Object.entries(SENSES)
      .map(([sense, name]) => ({
        name,
        symptoms: fitting.filter((symptom) => symptom.sense === sense),
      }))
      .filter(({ symptoms }) => symptoms.length);
  });

  protected choose(id: string): void {
    this.typed.set('');
    this.told.emit(id);
  }
}

/** Other words for what a sentence says. */
function sameAs(say: string): string {
  const words = ` ${say.toLowerCase().replaceAll(/[^a-z]+/g, ' ')} `;
  return SAME_WORDS.filter((group) => group.some((word) => words.includes(` ${word} `)))
    .flat()
    .join(' ');
}
