import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap';
import { check, dayOf, isWasher, type Machine, type Programme } from '@needlecase/core';
import { LoadsService } from '../data/loads.service';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';
import { fromLocal } from '../shared/local-time';
import { instantNow, timeNow } from '../data/clock';

const OF_WASHERS: { value: Programme | ''; label: string }[] = [
  { value: '', label: 'As usual' },
  { value: 'cool', label: 'Cool' },
  { value: 'hot', label: 'Hot' },
  { value: 'heavy', label: 'Heavy soil' },
];
const OF_DRYERS: typeof OF_WASHERS = [
  { value: '', label: 'As usual' },
  { value: 'heavy', label: 'Much lint: fleece, new towels' },
];

/** Several loads at once, of a cycle, or of a past day. */
@Component({
  selector: 'nc-loads-dialog',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form [formGroup]="form()" (submit)="$event.preventDefault(); save()" novalidate>
      <div class="modal-header">
        <h2 id="loads-title" class="modal-title">Loads of the {{ machine()?.name }}</h2>
        <button
          type="button"
          class="btn-close"
          aria-label="Close and count nothing"
          (click)="modal.dismiss()"
        ></button>
      </div>
      <div class="modal-body">
        <div class="many" role="group" aria-label="How many loads">
          <button type="button" class="btn btn-plain" aria-label="One load less" (click)="step(-1)">
            −
          </button>
          <input
            id="loads-count"
            ngbAutofocus
            class="form-control"
            type="number"
            inputmode="numeric"
            min="1"
            max="50"
            aria-label="Loads"
            formControlName="count"
            ncField="count"
          />
          <button type="button" class="btn btn-plain" aria-label="One load more" (click)="step(1)">
            +
          </button>
        </div>
        <nc-problem field="count" />
        <fieldset>
          <legend>What they were</legend>
          <div class="kinds">
            @for (one of programmes(); track one.value) {
              <label>
                <input type="radio" formControlName="programme" [value]="one.value" />
                <span>{{ one.label }}</span>
              </label>
            }
          </div>
          <p class="form-text">
            {{
              washer()
                ? 'What runs cool lets film grow, what runs hot holds it back; heavy soil fills filter and folds.'
                : 'Lint from fleece and new towels fills screens and duct sooner.'
            }}
          </p>
        </fieldset>
        <div>
          <label class="form-label" for="loads-day">Day</label>
          <input
            id="loads-day"
            class="form-control"
            type="date"
            [max]="today()"
            formControlName="day"
            ncField="at"
          />
          <nc-problem field="at" />
        </div>
      </div>
      <div class="modal-footer">
        <button type="button" class="btn btn-plain" (click)="modal.dismiss()">Leave it</button>
        <button type="submit" class="btn btn-thread">Count</button>
      </div>
    </form>
  `,
  styles: `
    @use 'mixins' as *;

    .modal-title {
      font-size: 1.35rem;
    }

    .modal-body {
      display: grid;
      gap: 0.9rem;
    }

    .many {
      display: grid;
      grid-template-columns: 3.4rem 6rem 3.4rem;
      gap: 0.6rem;
    }

    .many .btn {
      @include touch;
      font-size: 1.4rem;
      line-height: 1;
    }

    .many input {
      text-align: center;
      font-size: 1.4rem;
    }

    legend {
      font: 600 1rem var(--sans);
      margin-bottom: 0.35rem;
    }

    .kinds {
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }

    .kinds input {
      position: absolute;
      opacity: 0;
    }

    .kinds span {
      display: grid;
      place-items: center;
      @include touch;
      padding: 0.2rem 1rem;
      border: 2px solid var(--edge);
      border-radius: 1.6rem;
      cursor: pointer;
    }

    .kinds input:checked + span {
      border-color: var(--ink);
      background: var(--ink);
      color: var(--linen);
    }

    .kinds input:focus-visible + span {
      outline: 3px solid var(--focus);
      outline-offset: 2px;
    }

    :host-context([data-bs-theme='dark']) .btn-close {
      filter: invert(1);
    }
  `,
})
export class LoadsDialogComponent {
  readonly #loads = inject(LoadsService);
  readonly #problems = inject(FormProblems);
  protected readonly modal = inject(NgbActiveModal);

  /** Set by whoever opens the dialog. */
  readonly machine = signal<Machine | undefined>(undefined);
  readonly zone = signal('UTC');

  protected readonly today = computed(() => dayOf(timeNow(), this.zone()));
  protected readonly washer = computed(() => isWasher(this.machine()?.kind ?? 'vented-dryer'));
  protected readonly programmes = computed(() => (this.washer() ? OF_WASHERS : OF_DRYERS));
  protected readonly form = computed(
    () =>
      new FormGroup({
        count: new FormControl<number | null>(1),
        programme: new FormControl<Programme | ''>('', { nonNullable: true }),
        day: new FormControl(this.today(), { nonNullable: true }),
      }),
  );

  protected step(by: 1 | -1): void {
    const { count } = this.form().controls;
    count.setValue(Math.min(50, Math.max(1, (count.value ?? 0) + by)));
  }

  protected save(): void {
    const { count, programme, day } = this.form().getRawValue();
    const machine = this.machine()!;
    const at = day === this.today() ? instantNow() : fromLocal(`${day}T12:00`, this.zone());
    const problems = check('EntryDraft', {
      kind: 'load',
      machineId: machine.id,
      at: at ?? '',
      count,
    }).map((one) => (one.field === 'at' ? { ...one, message: 'Give a day.' } : one));
    if (!problems.length && Date.parse(at!) > timeNow()) {
      problems.push({ field: 'at', message: 'This is in the future. Give a day up to today.' });
    }
    this.#problems.set(problems);
    if (problems.length) return this.#problems.show();
    void this.#loads.count(machine, {
      count: count!,
      at: at!,
      ...(programme ? { programme } : {}),
    });
    this.modal.close();
  }
}
