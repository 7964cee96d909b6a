import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap';
import {
  GRADE_NAMES,
  GRADES,
  sayEntry,
  type Entry,
  type EntryDraft,
  type Grade,
} from '@needlecase/core';
import type { ApiProblem } from '../data/api.service';
import { EntriesService } from '../data/entries.service';
import { FieldDirective, FormProblems, ProblemComponent } from '../forms/problems';
import { fromLocal, toLocal } from './local-time';

/** Correcting one entry. The old one stays readable. */
@Component({
  selector: 'nc-correct',
  imports: [ReactiveFormsModule, FieldDirective, ProblemComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (entry(); as old) {
      <form [formGroup]="form()" (submit)="$event.preventDefault(); save()" novalidate>
        <div class="modal-header">
          <h2 id="correct-title" class="modal-title">Correct: {{ say(old) }}</h2>
          <button
            type="button"
            class="btn-close"
            aria-label="Close without changing"
            (click)="modal.dismiss()"
          ></button>
        </div>
        <div class="modal-body">
          <div>
            <label class="form-label" for="c-at">When</label>
            <input
              id="c-at"
              type="datetime-local"
              class="form-control"
              formControlName="at"
              ncField="at"
            />
            <nc-problem field="at" />
          </div>
          @if (old.kind === 'load') {
            <div>
              <label class="form-label" for="c-count">Loads</label>
              <input
                id="c-count"
                type="number"
                class="form-control"
                formControlName="count"
                ncField="count"
              />
              <nc-problem field="count" />
            </div>
          }
          @if (old.kind === 'done' || old.kind === 'opened') {
            <div>
              <label class="form-label" for="c-kind">What came of it</label>
              <select id="c-kind" class="form-select" formControlName="kind">
                <option value="done">Done</option>
                <option value="opened">Looked at, left alone</option>
              </select>
            </div>
            <div>
              <label class="form-label" for="c-grade">How it looked when opened</label>
              <select id="c-grade" class="form-select" formControlName="grade" ncField="grade">
                <option [ngValue]="null">not noted</option>
                @for (one of grades; track one) {
                  <option [ngValue]="one">{{ gradeNames[one] }}</option>
                }
              </select>
              <nc-problem field="grade" />
            </div>
          }
          @if (old.kind === 'reading') {
            <div>
              <label class="form-label" for="c-value">Figure, {{ old.unit }}</label>
              <input
                id="c-value"
                type="number"
                step="any"
                class="form-control"
                formControlName="value"
                ncField="value"
              />
              <nc-problem field="value" />
            </div>
          }
          @if (old.kind === 'code') {
            <div>
              <label class="form-label" for="c-code">Code</label>
              <input id="c-code" class="form-control" formControlName="code" ncField="code" />
              <nc-problem field="code" />
            </div>
          }
          <div>
            <label class="form-label" for="c-note">Note</label>
            <textarea
              id="c-note"
              rows="3"
              class="form-control"
              formControlName="note"
              ncField="note"
            ></textarea>
            <nc-problem field="note" />
          </div>
          @if (failed(); as wrong) {
            <p class="field-problem" role="alert">{{ wrong.title }} {{ wrong.detail }}</p>
          }
        </div>
        <div class="modal-footer">
          <button type="button" class="btn btn-plain" (click)="modal.dismiss()">Leave it</button>
          <button type="submit" class="btn btn-thread">Store the correction</button>
        </div>
      </form>
    }
  `,
  styles: `
    .modal-title {
      font-size: 1.35rem;
    }

    .modal-body {
      display: grid;
      gap: 0.9rem;
    }

    :host-context([data-bs-theme='dark']) .btn-close {
      filter: invert(1);
    }
  `,
})
export class CorrectComponent {
  readonly #entries = inject(EntriesService);
  protected readonly modal = inject(NgbActiveModal);
  readonly #problems = inject(FormProblems);
  readonly #key = crypto.randomUUID();

  /** Set by whoever opens the dialog. */
  readonly entry = signal<Entry | undefined>(undefined);
  protected readonly failed = signal<ApiProblem | undefined>(undefined);
  protected readonly form = linkedSignal(() => formOf(this.entry()));
  protected readonly say = sayEntry;
  protected readonly grades = GRADES;
  protected readonly gradeNames = GRADE_NAMES;
  readonly #draft = computed(() => this.entry() && draftOf(this.entry()!));

  protected save(): void {
    const old = this.entry()!;
    const { at, count, kind, grade, value, code, note } = this.form().getRawValue();
    const when = fromLocal(at, old.zone);
    if (!when) {
      this.#problems.set([{ field: 'at', message: 'Give a date and a time.' }]);
      return this.#problems.show();
    }
    const { grade: _grade, note: _note, ...rest } = this.#draft()!;
    const draft = {
      ...rest,
      kind,
      // The minute that is shown is the minute that is kept, unless it was changed.
      at: at === toLocal(old.at, old.zone) ? old.at : when,
      ...(old.kind === 'load' ? { count } : {}),
      ...(grade === null ? {} : { grade }),
      ...(old.kind === 'reading' ? { value } : {}),
      ...(old.kind === 'code' ? { code } : {}),
      ...(note.trim() ? { note } : {}),
    } as EntryDraft;
    this.#entries.correct(old, draft, this.#key).subscribe({
      next: (entry) => this.modal.close(entry),
      error: (problem: ApiProblem) => {
        this.#problems.set(problem.errors);
        this.failed.set(problem.errors.length ? undefined : problem);
        this.#problems.show();
      },
    });
  }
}

function formOf(entry: Entry | undefined) {
  return new FormGroup({
    at: new FormControl(entry ? toLocal(entry.at, entry.zone) : '', { nonNullable: true }),
    count: new FormControl<number | null>(entry?.count ?? null),
    kind: new FormControl(entry?.kind ?? 'note', { nonNullable: true }),
    grade: new FormControl<Grade | null>(entry?.grade ?? null),
    value: new FormControl<number | null>(entry?.value ?? null),
    code: new FormControl(entry?.code ?? '', { nonNullable: true }),
    note: new FormControl(entry?.note ?? '', { nonNullable: true }),
  });
}

/** An entry without what the server added. */
function draftOf(entry: Entry): EntryDraft {
  const {
    id: _id,
    zone: _zone,
    recordedAt: _at,
    runId: _run,
    revises: _r,
    revisedBy: _b,
    ...draft
  } = entry;
  return draft;
}
