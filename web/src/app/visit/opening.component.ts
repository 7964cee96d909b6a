import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  openQuestions,
  taskOf,
  tasksOf,
  type Features,
  type Machine,
  type OpenQuestion,
  type VisitPlan,
  type VisitTask,
} from '@needlecase/core';
import { SelectComponent } from '../shared/select.component';

/** Before the first step: what is going to be done, what to beware of, what to fetch. */
@Component({
  selector: 'nc-opening',
  imports: [SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="opening">
      <section>
        <h1 tabindex="-1" data-step-title>Before you begin</h1>
        <ul class="tasks">
          @for (task of named(); track $index) {
            <li>
              <strong>{{ task.name }}</strong>, {{ task.machine }}
            </li>
          }
        </ul>
        <h2>Beware</h2>
        <ul class="cautions">
          @for (caution of cautions(); track caution) {
            <li>{{ caution }}</li>
          }
        </ul>
        <p class="soft small">
          Each comes again at the step where it counts. Your manual and local code come before what
          is said here.
        </p>
      </section>
      <section>
        @for (one of gone(); track one) {
          <p class="field-problem" role="alert">
            As you told it, this machine has nothing to do for “{{ one }}”. Give this visit up and
            choose other tasks.
          </p>
        }
        @if (questions().length) {
          <div class="ask">
            <h2>{{ questions().length === 1 ? 'One question' : 'Questions' }} first</h2>
            <p class="soft small">The steps follow your answer, and it is kept with the machine.</p>
            @for (one of questions(); track one.machineId + one.question.id) {
              <label class="question">
                <span class="form-label">
                  {{ one.question.question }}
                  <span class="soft">{{ nameOf(one.machineId) }}</span>
                </span>
                <select
                  nc-select
                  [options]="answersTo(one)"
                  [chosen]="''"
                  [say]="sayAnswer(one)"
                  (chosenChange)="answer(one, $event)"
                ></select>
              </label>
            }
          </div>
        }
        <h2>Fetch first</h2>
        <ul class="fetch">
          @for (item of plan().fetch; track item.what) {
            <li>
              <label>
                <input
                  type="checkbox"
                  class="form-check-input"
                  [checked]="fetched().includes(item.what)"
                  (change)="turned.emit(item.what)"
                />
                {{ item.what }}
              </label>
            </li>
          }
        </ul>
      </section>
    </div>
  `,
  styles: `
    @use 'mixins' as *;

    .opening {
      display: grid;
      grid-template-columns: repeat(2, minmax(0, 1fr));
      gap: 0.5rem 3rem;
      padding: 1rem 0;
    }

    h1 {
      font-size: 1.9rem;
    }

    h1:focus {
      outline: none;
    }

    h2 {
      font-size: 1.3rem;
    }

    .tasks {
      padding-left: 1.2rem;
    }

    .cautions {
      padding-left: 1.2rem;
    }

    .cautions li {
      margin-bottom: 0.35rem;
    }

    .cautions li::marker {
      color: var(--due);
    }

    .fetch {
      list-style: none;
      padding: 0;
    }

    .ask {
      border: 2px dashed var(--water);
      border-radius: 0.9rem;
      padding: 0.7rem 1rem;
      margin-bottom: 0.8rem;
    }

    .question {
      display: block;
      border: 0;
      margin-bottom: 0.5rem;
    }

    .question select {
      @include touch;
    }

    .fetch label {
      display: flex;
      align-items: center;
      gap: 0.9rem;
      @include touch;
      @include seam(bottom);
      cursor: pointer;
    }

    input {
      width: 1.5rem;
      height: 1.5rem;
      margin: 0;
      flex: none;
    }

    @media (max-width: 860px) {
      .opening {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class OpeningComponent {
  readonly plan = input.required<VisitPlan>();
  readonly machines = input.required<readonly Machine[]>();
  readonly tasks = input.required<readonly VisitTask[]>();
  readonly fetched = input.required<readonly string[]>();
  readonly turned = output<string>();

  /** Someone told how a machine is built. */
  readonly told = output<{ machine: Machine; features: Features }>();

  /** What the steps depend on and nobody has told yet. */
  protected readonly questions = computed(() => openQuestions(this.tasks(), this.machines()));

  /** Tasks that the machine turned out not to have. */
  protected readonly gone = computed(() =>
    this.tasks().flatMap(({ machineId, task }) => {
      const machine = this.machines().find(({ id }) => id === machineId)!;
      return tasksOf(machine).some(({ id }) => id === task) ? [] : taskOf(machine, task).name;
    }),
  );

  protected nameOf(machineId: string): string {
    return this.machines().find(({ id }) => id === machineId)?.name ?? '';
  }

  protected answersTo({ question }: OpenQuestion): string[] {
    return ['', ...question.answers.map(({ value }) => value).filter((one) => one !== 'unknown')];
  }

  protected readonly sayAnswer =
    ({ question }: OpenQuestion) =>
    (value: string): string =>
      question.answers.find((one) => one.value === value)?.label ?? 'I do not know yet';

  protected answer({ machineId, question }: OpenQuestion, value: string): void {
    if (!value) return;
    const machine = this.machines().find(({ id }) => id === machineId)!;
    this.told.emit({ machine, features: { ...machine.features, [question.id]: value } });
  }

  protected readonly named = computed(() =>
    this.tasks().map(({ machineId, task }) => {
      const machine = this.machines().find(({ id }) => id === machineId)!;
      return { name: taskOf(machine, task).name, machine: machine.name };
    }),
  );
  /** Those that come up at a step of this very run, each once. */
  protected readonly cautions = computed(() => [
    ...new Set(this.plan().steps.flatMap(({ cautions }) => cautions)),
  ]);
}
