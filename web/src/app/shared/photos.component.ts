import {
  ChangeDetectionStrategy,
  Component,
  inject,
  input,
  output,
  resource,
  signal,
} from '@angular/core';
import { OutboxService } from '../data/outbox.service';
import { PhotoProblem, PhotosService } from '../data/photos.service';

const MOST = 6;

/** Photos of what was found: those there are, and one more. */
@Component({
  selector: 'nc-photos',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="photos">
      @for (one of shown.value(); track one.id) {
        <figure>
          <a [href]="one.address" target="_blank" rel="noopener">
            <img
              [src]="one.address"
              [alt]="'Photo ' + ($index + 1)"
              loading="lazy"
              (error)="gone.add(one.id)"
            />
          </a>
          @if (gone.has(one.id) ? 'Not there any more' : one.state; as state) {
            <figcaption>{{ state }}</figcaption>
          }
          @if (!fixed()) {
            <button
              type="button"
              class="btn btn-plain"
              (click)="remove(one.id)"
              [attr.aria-label]="'Take photo ' + ($index + 1) + ' away'"
            >
              ×
            </button>
          }
        </figure>
      }
      @if (!fixed() && ids().length < most) {
        <label class="btn btn-plain add" [class.busy]="busy()">
          {{ busy() ? 'Making it small…' : 'Add a photo' }}
          <input
            class="visually-hidden"
            type="file"
            accept="image/*"
            [disabled]="busy()"
            (change)="take($event)"
          />
        </label>
      }
    </div>
    @if (problem(); as wrong) {
      <p class="field-problem" role="alert">{{ wrong }}</p>
    }
  `,
  styles: `
    .photos {
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem;
      align-items: center;
    }
    figure {
      position: relative;
      margin: 0;
    }
    img {
      display: block;
      width: 5.5rem;
      height: 5.5rem;
      object-fit: cover;
      border-radius: 0.7rem;
      border: 2px solid var(--edge);
      background: var(--face);
    }
    figcaption {
      font-size: 0.85rem;
      font-weight: 600;
      max-width: 8rem;
    }
    figure .btn {
      position: absolute;
      top: -0.4rem;
      left: 4rem;
      min-width: 40px;
      min-height: 40px;
      padding: 0;
      line-height: 1;
      font-size: 1.3rem;
      background: var(--face);
    }
    .add {
      min-height: 52px;
      display: inline-grid;
      place-items: center;
    }
    .add:focus-within {
      outline: 3px solid var(--focus);
      outline-offset: 2px;
    }
  `,
})
export class PhotosComponent {
  readonly #photos = inject(PhotosService);
  readonly #outbox = inject(OutboxService);

  readonly ids = input<readonly string[]>([]);
  /** Only to be looked at. */
  readonly fixed = input(false);
  readonly changed = output<string[]>();

  protected readonly busy = signal(false);
  protected readonly problem = signal('');
  protected readonly most = MOST;
  /** Photos that could not be shown: neither here nor with the server. */
  protected readonly gone = new Set<string>();
  protected readonly shown = resource({
    // What waits to be sent, or was refused, is told anew when it changes.
    params: () => ({ ids: this.ids(), turns: [this.#outbox.waiting(), this.#outbox.aside()] }),
    loader: ({ params: { ids } }) => Promise.all(ids.map((id) => this.#photos.shown(id))),
    defaultValue: [],
  });

  protected async take(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (!file) return;
    this.busy.set(true);
    this.problem.set('');
    try {
      const id = await this.#photos.keep(file);
      this.changed.emit([...this.ids(), id]);
    } catch (problem) {
      if (!(problem instanceof PhotoProblem)) throw problem;
      this.problem.set(problem.message);
    } finally {
      this.busy.set(false);
    }
  }

  protected remove(id: string): void {
    this.changed.emit(this.ids().filter((one) => one !== id));
  }
}
