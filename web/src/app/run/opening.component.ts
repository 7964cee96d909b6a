import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { taskOf, type Machine, type RunPlan, type RunTask } from '@needlecase/core';

/** Before the first step: what is going to be done, what to beware of, what to fetch. */
@Component({
  selector: 'nc-opening',
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

    label {
      display: flex;
      align-items: center;
      gap: 0.9rem;
      min-height: 48px;
      border-bottom: 2px dashed var(--seam);
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
  readonly plan = input.required<RunPlan>();
  readonly machines = input.required<readonly Machine[]>();
  readonly tasks = input.required<readonly RunTask[]>();
  readonly fetched = input.required<readonly string[]>();
  readonly turned = output<string>();

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
