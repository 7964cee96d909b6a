import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { Machine } from '@needlecase/core';
import type { ManualPage } from '@needlecase/core/model/documents';
import type { ApiProblem } from '../data/api.service';
import { BenchService } from '../data/bench.service';
import { DocumentsService, paperAddress } from '../data/documents.service';
import { HouseholdService } from '../data/household.service';
import { RoleService } from '../data/role.service';
import { withoutVersion } from '../forms/onto';
import { SelectComponent } from './select.component';

const LAST_PAGE = 5000;

/** The page of a machine's manual that tells of a task or of one of its steps: gone to, or noted. */
@Component({
  selector: 'nc-manual-page',
  imports: [SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (papers().length) {
      @if (known(); as at) {
        <a class="page" [href]="at.address" target="_blank" rel="noopener">{{ at.said }}</a>
      }
      @if (role.may('helper')) {
        <details [open]="open()" (toggle)="open.set(opened($event))">
          <summary>{{ known() ? 'Another page' : 'Note the page of its manual' }}</summary>
          <form (submit)="$event.preventDefault(); keep(page.value)">
            @if (papers().length > 1) {
              <select
                nc-select
                aria-label="Which paper"
                [options]="ids()"
                [chosen]="paper()"
                [say]="nameOf"
                (chosenChange)="chosen.set($event)"
              ></select>
            } @else {
              <span>{{ nameOf(paper()) }},</span>
            }
            <label>
              page
              <input
                #page
                class="form-control"
                inputmode="numeric"
                maxlength="4"
                autocomplete="off"
                [value]="known()?.page ?? ''"
                [attr.aria-invalid]="wrong() ? true : null"
              />
            </label>
            <button type="submit" class="btn btn-plain">Keep it</button>
            @if (known()) {
              <button type="button" class="btn btn-plain" (click)="put(undefined)">
                Not there
              </button>
            }
          </form>
          @if (wrong(); as words) {
            <p class="field-problem" role="alert">{{ words }}</p>
          }
        </details>
      }
    }
  `,
  styles: `
    @use 'mixins' as *;

    .page {
      @include touch;
      align-content: center;
      display: inline-block;
      font-weight: 600;
    }
    summary {
      @include touch;
      align-content: center;
      color: var(--ink-soft);
    }
    form {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0.5rem;
    }
    label {
      align-items: center;
      display: flex;
      gap: 0.4rem;
    }
    input {
      width: 5rem;
    }
    .btn {
      @include touch;
    }
  `,
})
export class ManualPageComponent {
  readonly #households = inject(HouseholdService);
  readonly #bench = inject(BenchService);
  protected readonly role = inject(RoleService);
  readonly #documents = toSignal(inject(DocumentsService).all$, { initialValue: [] });

  readonly machine = input.required<Machine>();
  readonly task = input.required<string>();
  readonly step = input<string>();

  protected readonly open = signal(false);
  protected readonly wrong = signal('');
  protected readonly chosen = signal<string | undefined>(undefined);
  /** Manuals first. */
  protected readonly papers = computed(() =>
    this.#documents()
      .filter(({ machineId }) => machineId === this.machine().id)
      .sort((a, b) => Number(b.kind === 'manual') - Number(a.kind === 'manual')),
  );
  protected readonly ids = computed(() => this.papers().map(({ id }) => id));
  readonly #here = computed(() =>
    this.machine().pages?.find((one) => one.task === this.task() && one.step === this.step()),
  );
  protected readonly known = computed(() => {
    const at = this.#here();
    const paper = this.papers().find(({ id }) => id === at?.document);
    if (!at || !paper) return undefined;
    const pdf = paper.type === 'application/pdf';
    return {
      page: at.page,
      address: paperAddress(paper.id, pdf ? at.page : undefined),
      said: `${paper.name}, page ${at.page}`,
    };
  });
  protected readonly paper = computed(
    () => this.chosen() ?? this.#here()?.document ?? this.papers()[0]?.id ?? '',
  );
  protected readonly nameOf = (id: string): string =>
    this.papers().find((one) => one.id === id)?.name ?? '';
  protected readonly opened = (event: Event): boolean => (event.target as HTMLDetailsElement).open;

  protected keep(typed: string): void {
    const page = Number(typed.trim());
    if (!Number.isInteger(page) || page < 1 || page > LAST_PAGE) {
      return this.wrong.set(`Give a page from 1 to ${LAST_PAGE}.`);
    }
    const step = this.step();
    const [document, task] = [this.paper(), this.task()];
    this.put({ document, page, task, ...(step === undefined ? {} : { step }) });
  }

  /** Keeps it with the machine, in the place of what stood there. */
  protected put(page: ManualPage | undefined): void {
    const machine = this.machine();
    const there = new Set(this.#documents().map(({ id }) => id));
    const others = (machine.pages ?? []).filter(
      (one) => there.has(one.document) && !(one.task === this.task() && one.step === this.step()),
    );
    const pages = page ? [...others, page] : others;
    this.#households
      .saveMachine(machine.id, { ...withoutVersion(machine), pages }, machine.version)
      .subscribe({
        next: () => {
          this.wrong.set('');
          this.open.set(false);
          this.#bench.refresh();
        },
        error: ({ title, detail }: ApiProblem) => {
          this.wrong.set(`${title} ${detail} What you typed is still here.`);
          this.#bench.refresh();
        },
      });
  }
}
