import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { map } from 'rxjs';
import { BenchService } from '../data/bench.service';
import { stamp } from '../data/clock';
import { OutboxService } from '../data/outbox.service';
import { PhotoProblem, PhotosService } from '../data/photos.service';
import { newId } from '../data/platform';
import { dealtWith, sharedLast } from '../data/shared';
import { ToastsService } from '../data/toasts.service';
import { PhotosComponent } from '../shared/photos.component';
import { SelectComponent } from '../shared/select.component';
import { SingleTaps } from '../shared/single-taps';

/** Photos that another application shared: of which machine, and what is on them. */
@Component({
  selector: 'nc-share',
  imports: [PhotosComponent, SelectComponent],
  hostDirectives: [SingleTaps],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h1>Shared with Needlecase</h1>
    @if (problem(); as wrong) {
      <p class="field-problem" role="alert">{{ wrong }}</p>
    }
    @if (ids(); as photos) {
      @if (photos.length) {
        <nc-photos [ids]="photos" [fixed]="true" />
        <form (submit)="$event.preventDefault(); keep(note.value)">
          <label class="form-label" for="s-machine">Of which machine?</label>
          <select
            nc-select
            id="s-machine"
            [options]="machineIds()"
            [chosen]="machine()"
            [say]="sayMachine"
            (chosenChange)="machine.set($event)"
          ></select>
          <label class="form-label" for="s-note">What is on it? (if you like)</label>
          <textarea #note id="s-note" class="form-control" rows="3" maxlength="2000">{{
            text()
          }}</textarea>
          <div class="acts">
            <button type="submit" class="btn btn-thread">Keep as a note</button>
            <button type="button" class="btn btn-plain" (click)="leave()">Leave it</button>
          </div>
        </form>
      } @else {
        <p>Nothing is here. Share a photo from another application, and it comes to this page.</p>
      }
    }
  `,
  styles: `
    @use 'mixins' as *;

    :host {
      display: block;
      max-width: 34rem;
    }

    form {
      display: grid;
      gap: 0.4rem;
    }

    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem;
      margin-top: 0.6rem;
    }

    .btn {
      @include touch;
    }
  `,
})
export class ShareComponent {
  readonly #photos = inject(PhotosService);
  readonly #outbox = inject(OutboxService);
  readonly #router = inject(Router);
  readonly #toasts = inject(ToastsService);
  /** Of what is read most, and so is at hand without a connection. */
  readonly #machines = toSignal(
    inject(BenchService).bench$.pipe(map(({ value }) => value?.machines ?? [])),
    { initialValue: [] },
  );

  /** Photos that are kept on this device by now; undefined until it was looked. */
  protected readonly ids = signal<string[] | undefined>(undefined);
  protected readonly text = signal('');
  protected readonly problem = signal(
    location.search === '?failed' ? 'What was shared could not be read. Try it again.' : '',
  );
  protected readonly machine = signal<string | undefined>(undefined);
  protected readonly machineIds = () => [undefined, ...this.#machines().map(({ id }) => id)];
  protected readonly sayMachine = (id: string | undefined): string =>
    this.#machines().find((one) => one.id === id)?.name ?? 'None of them';

  constructor() {
    void this.#read();
  }

  async #read(): Promise<void> {
    const shared = await sharedLast().catch(() => undefined);
    this.text.set(shared?.text ?? '');
    const kept: string[] = [];
    for (const file of shared?.files ?? []) {
      try {
        kept.push(await this.#photos.keep(file));
      } catch (problem) {
        if (!(problem instanceof PhotoProblem)) throw problem;
        this.problem.set(problem.message);
      }
    }
    // From here on they wait on this device as any other photo does.
    if (shared) await dealtWith();
    this.ids.set(kept);
  }

  protected keep(note: string): void {
    const machineId = this.machine();
    void this.#outbox.add({
      id: newId(),
      kind: 'note',
      ...stamp(),
      ...(machineId ? { machineId } : {}),
      note: note.trim() || 'A photo',
      photos: this.ids()!,
    });
    this.#toasts.show('The note is kept.');
    this.leave();
  }

  protected leave(): void {
    void this.#router.navigateByUrl('/log');
  }
}
