import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { lookNear } from '../data/near';
import { BenchService } from '../data/bench.service';
import { LoadsService } from '../data/loads.service';
import { RoleService } from '../data/role.service';
import { LineComponent } from '../thread/line.component';

/** What the code on a machine opens: what is due, one load more, something is wrong. */
@Component({
  selector: 'nc-label',
  imports: [LineComponent, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (machine(); as one) {
      <h1>{{ one.name }}</h1>
      <p class="soft">{{ one.place }}</p>
      <nc-line
        [kind]="one.kind"
        [stations]="state()?.stations ?? []"
        size="strip"
        [label]="'Line of the ' + one.name"
      />
      <section aria-label="What is due">
        @for (due of dues(); track due.task) {
          <p class="due">
            <b>{{ due.name }}</b><span class="soft said">{{ due.said }}</span>
          </p>
        } @empty {
          <p>Nothing is due here.</p>
        }
      </section>
      <div class="acts">
        <button type="button" class="btn btn-thread" (click)="count()">One load more</button>
        <span class="soft" role="status">{{ loads() }} today</span>
        @if (role.may('helper') && dues().length) {
          <a
            class="btn btn-plain"
            routerLink="/visit"
            [queryParams]="{ machine: one.id, task: dues()[0]!.task }"
            >Choose what to do</a
          >
        }
        <a class="btn btn-plain" routerLink="/trouble" [queryParams]="{ machine: one.id }"
          >Something is wrong</a
        >
        <a class="btn btn-plain" [routerLink]="['/machine', one.id]">Its whole line</a>
      </div>
    } @else if (several().length > 1) {
      <h1>Which machine?</h1>
      @for (one of several(); track one.id) {
        <p>
          <a class="btn btn-plain" [routerLink]="['/machine', one.id]">{{ one.name }}</a>
        </p>
      }
    } @else if (read()?.problem && !read()?.value) {
      <h1>{{ read()!.problem!.title }}</h1>
      <p>{{ read()!.problem!.detail }}</p>
    } @else if (read()?.value) {
      <h1>No such machine here</h1>
      <p>
        The code on it is of another house, or the machine is no longer kept. Print its sticker anew
        under Plan.
      </p>
      <a class="btn btn-thread" routerLink="/">To the bench</a>
    }
  `,
  styles: `
    :host {
      display: block;
      margin-inline: auto;
      max-width: 34rem;
    }
    .due {
      margin: 0.3rem 0;
    }
    .said {
      margin-inline-start: 0.5rem;
    }
    .acts {
      align-items: center;
      display: flex;
      flex-wrap: wrap;
      gap: 0.6rem;
      margin-top: 1.2rem;
    }
    .btn {
      min-height: 52px;
      padding-block: 0.8rem;
    }
    .btn-thread {
      flex: 1 1 12rem;
    }
  `,
})
export class LabelComponent {
  readonly #loads = inject(LoadsService);
  protected readonly role = inject(RoleService);
  /** From the address: the beginning of the machine's id. */
  readonly short = input.required<string>();

  protected readonly read = toSignal(inject(BenchService).bench$);
  protected readonly several = computed(() => {
    const short = this.short().toLowerCase();
    const machines = this.read()?.value?.machines ?? [];
    return short.length < 4
      ? []
      : machines.filter(({ id }) => id.replaceAll('-', '').startsWith(short));
  });
  protected readonly machine = computed(() =>
    this.several().length === 1 ? this.several()[0] : undefined,
  );
  protected readonly state = computed(() =>
    this.read()?.value?.states.find(({ machineId }) => machineId === this.machine()?.id),
  );
  protected readonly dues = computed(
    () =>
      this.state()?.dues.filter(
        ({ status, professional }) => (status === 'due' || status === 'soon') && !professional,
      ) ?? [],
  );
  protected readonly loads = computed(() => {
    const id = this.machine()?.id ?? '';
    const counted = this.read()?.value?.loads.find(({ machineId }) => machineId === id)?.today ?? 0;
    return counted + (this.#loads.pending().get(id) ?? 0);
  });

  constructor() {
    lookNear(() => this.machine()?.id);
  }

  protected count(): void {
    const machine = this.machine();
    if (machine) void this.#loads.count(machine);
  }
}
