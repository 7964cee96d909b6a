import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { NgbActiveModal } from '@ng-bootstrap/ng-bootstrap';
import { many, type Visit } from '@needlecase/core';
import { sayWhen } from '../shared/say-when';

/** Asks before work is begun that another visit has under way. Closes with `go on` or `another`. */
@Component({
  selector: 'nc-under-way',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="modal-header">
      <h2 id="under-way-title" class="modal-title">This work is under way already</h2>
      <button
        type="button"
        class="btn-close"
        aria-label="Close and begin nothing"
        (click)="modal.dismiss()"
      ></button>
    </div>
    <div class="modal-body">
      <p>{{ told() }}</p>
      <p>Go on there, and what is done is recorded once.</p>
    </div>
    <div class="modal-footer">
      <button type="button" class="btn btn-plain" (click)="modal.close('another')">
        Begin another all the same
      </button>
      <button type="button" ngbAutofocus class="btn btn-thread" (click)="modal.close('go on')">
        Go on with that visit
      </button>
    </div>
  `,
})
export class UnderWayComponent {
  protected readonly modal = inject(NgbActiveModal);
  readonly visit = signal<Visit | undefined>(undefined);

  protected readonly told = computed(() => {
    const visit = this.visit();
    if (!visit) return '';
    const { tasks, progress, startedAt, state } = visit;
    const ticked = Object.keys(progress.ticked).length;
    const begun = `A visit with ${many(tasks.length, 'task')} was begun ${sayWhen(Date.parse(startedAt))}`;
    return `${begun}, ${many(ticked, 'step')} ticked${state === 'paused' ? ', and paused' : ''}.`;
  });
}
