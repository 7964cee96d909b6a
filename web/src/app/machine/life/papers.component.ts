import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { Machine } from '@needlecase/core';
import {
  DOCUMENT_KINDS,
  DOCUMENT_WORDS,
  MOST_DOCUMENT,
  type Document,
  type DocumentKind,
} from '@needlecase/core/model/documents';
import { switchMap } from 'rxjs';
import type { ApiProblem } from '../../data/api.service';
import { DocumentsService, paperAddress } from '../../data/documents.service';
import { newId } from '../../data/platform';
import { RoleService } from '../../data/role.service';
import { ToastsService } from '../../data/toasts.service';
import { FieldDirective, FormProblems, ProblemComponent } from '../../forms/problems';

/** A machine's papers: its manual, its receipt; looked at, added, called otherwise, taken away. */
@Component({
  selector: 'nc-papers',
  imports: [FieldDirective, ProblemComponent],
  providers: [FormProblems],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section aria-labelledby="p-papers">
      <h2 id="p-papers">Papers</h2>
      <ul>
        @for (one of papers(); track one.id) {
          <li [id]="'paper-' + one.id" [class.marked]="one.id === marked()">
            <a [href]="address(one)" target="_blank" rel="noopener">{{ one.name }}</a>
            <span class="soft small">{{ words[one.kind] }}, {{ size(one) }}</span>
            @if (role.may('keeper')) {
              @if (asked() === one.id) {
                <span class="ask">
                  Its file goes with it.
                  <button type="button" class="btn btn-plain" (click)="remove(one)">
                    Take it away
                  </button>
                  <button type="button" class="btn btn-plain" (click)="asked.set('')">
                    Leave it
                  </button>
                </span>
              } @else {
                <button
                  type="button"
                  class="btn btn-link"
                  [attr.aria-label]="'Take away: ' + one.name"
                  (click)="asked.set(one.id)"
                >
                  Take away
                </button>
              }
            }
          </li>
        } @empty {
          <li class="none soft">
            No papers yet. With its manual here, tasks and steps can name their page.
          </li>
        }
      </ul>
      <form (submit)="$event.preventDefault(); keep()">
        <div>
          <label class="form-label" for="p-file"
            >Manual or receipt, PDF or picture, 20 MB at most</label
          >
          <input
            #file
            id="p-file"
            type="file"
            class="form-control"
            accept="application/pdf,image/jpeg,image/png,image/webp"
            ncField="file"
            (change)="chosen(file)"
          />
          <nc-problem field="file" />
        </div>
        @if (picked()) {
          <div class="pair">
            <div>
              <label class="form-label" for="p-name">What it is called here</label>
              <input
                #called
                id="p-name"
                class="form-control"
                maxlength="120"
                autocomplete="off"
                ncField="name"
                [value]="name()"
                (input)="name.set(called.value)"
              />
              <nc-problem field="name" />
            </div>
            <div>
              <label class="form-label" for="p-kind">What it is</label>
              <select
                #what
                id="p-kind"
                class="form-select"
                (change)="kind.set(kinds[what.selectedIndex]!)"
              >
                @for (one of kinds; track one) {
                  <option [selected]="one === kind()">{{ words[one] }}</option>
                }
              </select>
            </div>
          </div>
          <button type="submit" class="btn btn-thread" [disabled]="busy()">
            {{ busy() ? 'It is on its way…' : 'Keep it' }}
          </button>
        }
        @if (failed(); as words) {
          <p class="field-problem" role="alert">{{ words }}</p>
        }
      </form>
    </section>
  `,
  styles: `
    @use 'mixins' as *;

    h2 {
      font-size: 1.3rem;
      margin: 1.2rem 0 0.2rem;
    }
    ul {
      list-style: none;
      margin: 0 0 0.6rem;
      padding: 0;
    }
    li {
      @include seam(bottom, 1px);
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0 0.8rem;
      min-height: 48px;
    }
    .none {
      border: 0;
    }
    .marked {
      border-left: 5px solid var(--water);
      padding-left: 0.6rem;
    }
    li > a {
      font-weight: 600;
      overflow-wrap: anywhere;
    }
    .ask {
      display: flex;
      flex-wrap: wrap;
      gap: 0.4rem;
      align-items: center;
    }
    form {
      display: grid;
      gap: 0.6rem;
      max-width: 34rem;
    }
    .pair {
      display: grid;
      gap: 0.6rem;
      grid-template-columns: repeat(auto-fit, minmax(min(100%, 14rem), 1fr));
    }
    .btn {
      @include touch;
      justify-self: start;
    }
  `,
})
export class PapersComponent {
  readonly #documents = inject(DocumentsService);
  readonly #problems = inject(FormProblems);
  readonly #toasts = inject(ToastsService);
  readonly #here = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly role = inject(RoleService);

  readonly machine = input.required<Machine>();
  /** One that was looked for. */
  readonly marked = input<string>();

  readonly #all = toSignal(
    toObservable(computed(() => this.machine().id)).pipe(switchMap((id) => this.#documents.of(id))),
  );
  protected readonly papers = computed(() => this.#all() ?? []);
  protected readonly kinds = DOCUMENT_KINDS;
  protected readonly words = DOCUMENT_WORDS;
  protected readonly kind = signal<DocumentKind>('manual');
  protected readonly picked = signal<File | undefined>(undefined);
  /** As the file is called, until somebody says otherwise. */
  protected readonly name = linkedSignal(() =>
    (this.picked()?.name ?? '').replace(/\.[^.]+$/, '').slice(0, 120),
  );
  protected readonly asked = signal('');
  protected readonly busy = signal(false);
  protected readonly failed = signal('');
  /** The same for each try of the same file. */
  #id = newId();

  constructor() {
    afterRenderEffect(() => {
      const marked = this.marked();
      if (!marked || !this.papers().length) return;
      this.#here.nativeElement.querySelector(`#paper-${CSS.escape(marked)}`)?.scrollIntoView();
    });
  }

  protected readonly address = ({ id }: Document): string => paperAddress(id);
  protected readonly size = ({ bytes }: Document): string =>
    bytes < 950_000
      ? `${Math.max(1, Math.round(bytes / 1000))} kB`
      : `${(bytes / 1e6).toFixed(1)} MB`;

  protected chosen({ files }: HTMLInputElement): void {
    const file = files?.[0];
    this.failed.set('');
    this.#id = newId();
    const large = file !== undefined && file.size > MOST_DOCUMENT;
    this.#problems.set(large ? [{ field: 'file', message: 'It is larger than 20 MB.' }] : []);
    this.picked.set(large ? undefined : file);
  }

  protected keep(): void {
    const file = this.picked();
    if (!file || this.busy()) return;
    this.busy.set(true);
    this.failed.set('');
    const draft = { machineId: this.machine().id, kind: this.kind(), name: this.name().trim() };
    this.#documents.keep(this.#id, draft, file).subscribe({
      next: (kept) => {
        this.busy.set(false);
        this.#problems.set([]);
        this.picked.set(undefined);
        const field = this.#here.nativeElement.querySelector<HTMLInputElement>('#p-file');
        if (field) field.value = '';
        this.#toasts.show(`${kept.name} is kept.`);
      },
      error: (problem: ApiProblem) => {
        this.busy.set(false);
        this.#problems.set(problem.errors);
        this.failed.set(problem.errors.length ? '' : `${problem.title} ${problem.detail}`);
        this.#problems.show();
      },
    });
  }

  protected remove(one: Document): void {
    this.#documents.remove(one).subscribe({
      next: () => {
        this.asked.set('');
        this.#toasts.show(`${one.name} is taken away.`);
      },
      error: ({ title, detail }: ApiProblem) => this.failed.set(`${title} ${detail}`),
    });
  }
}
