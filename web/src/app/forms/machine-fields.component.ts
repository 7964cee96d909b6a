import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { ReactiveFormsModule } from '@angular/forms';
import {
  FEATURE_QUESTIONS,
  HABIT_QUESTIONS,
  KIND_NAMES,
  MACHINE_KINDS,
  sayLooser,
  SCHOOL_TEXTS,
  SCHOOLS,
  hasDuct,
  hasHeater,
  type MachineKind,
} from '@needlecase/core';
import { startWith, switchMap } from 'rxjs';
import type { MachineForm } from './machine-form';
import { FieldDirective, ProblemComponent } from './problems';
import { FigureComponent } from '../visit/figures/figure.component';
import { KindFigureComponent } from './kind-figure.component';
import { HerePipe } from '../shared/here.pipe';

/** The fields of a machine: how it is built and placed, or how it is used. */
@Component({
  selector: 'nc-machine-fields',
  imports: [
    FieldDirective,
    FigureComponent,
    HerePipe,
    KindFigureComponent,
    ProblemComponent,
    ReactiveFormsModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './machine-fields.component.html',
  styles: `
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(15rem, 1fr));
      gap: 0.7rem 1.25rem;
      align-items: start;
    }

    fieldset {
      grid-column: 1 / -1;
    }

    .kinds {
      display: grid;
      gap: 0.6rem;
      grid-template-columns: repeat(auto-fill, minmax(8rem, 1fr));
    }

    .kinds label {
      align-items: center;
      background: var(--face);
      border: 2px solid var(--edge);
      border-radius: 0.9rem;
      cursor: pointer;
      display: grid;
      font-weight: 600;
      justify-items: center;
      line-height: 1.15;
      padding: 0.5rem 0.3rem;
      text-align: center;
    }

    .kinds input {
      height: 1px;
      opacity: 0;
      position: absolute;
      width: 1px;
    }

    .kinds label:has(:checked) {
      border-color: var(--ink);
      box-shadow: inset 0 0 0 2px var(--ink);
    }

    .kinds label:has(:focus-visible) {
      outline: 3px solid var(--focus);
      outline-offset: 2px;
    }

    .taught {
      align-items: start;
      display: grid;
      gap: 0.8rem;
      grid-column: span 2;
      grid-template-columns: 7.5rem 1fr;
    }

    @media (max-width: 560px) {
      .taught {
        grid-column: auto;
        grid-template-columns: 5.5rem 1fr;
      }

      .kinds {
        grid-template-columns: repeat(3, 1fr);
      }
    }

    .checks {
      display: flex;
      flex-wrap: wrap;
      gap: 0.35rem 1.5rem;
    }

    legend {
      font: 600 1rem var(--sans);
      margin-bottom: 0.35rem;
    }
  `,
})
export class MachineFieldsComponent {
  readonly form = input.required<MachineForm>();
  readonly part = input<'build' | 'use' | 'both'>('both');
  /** Where problems of this machine are listed, such as `machines.0.`. */
  readonly prefix = input('');
  /** Keeps ids apart where several are on a page. */
  readonly tag = input('m');

  protected readonly kinds = MACHINE_KINDS.map((kind) => ({ kind, name: KIND_NAMES[kind] }));
  protected readonly schools = SCHOOLS.map((id) => ({ id, name: SCHOOL_TEXTS[id].name }));
  readonly #kind = toSignal(
    toObservable(this.form).pipe(
      switchMap(({ controls: { kind } }) => kind.valueChanges.pipe(startWith(kind.value))),
    ),
  );
  protected readonly questions = computed(() => {
    const kind = this.#kind();
    return FEATURE_QUESTIONS.filter(({ kinds }) => kind && kinds.includes(kind));
  });
  protected readonly habits = computed(() => {
    const kind = this.#kind();
    return HABIT_QUESTIONS.filter(({ kinds }) => kind && kinds.includes(kind));
  });
  /** What the school chosen leaves longer although it keeps people safe. */
  protected looser({ controls: { school, kind } }: MachineForm): string {
    return school.value ? sayLooser(school.value, kind.value) : '';
  }

  protected readonly vented = computed(() => this.#is(hasDuct));
  protected readonly heated = computed(() => this.#is(hasHeater));

  #is(what: (kind: MachineKind) => boolean): boolean {
    const kind = this.#kind();
    return kind !== undefined && what(kind);
  }
}
