import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { FOR_WHOM, FOR_WHOM_IDS, plusDays, type ForWhomId } from '@needlecase/core';
import { BenchService } from '../../data/bench.service';
import { RoleService } from '../../data/role.service';
import { SelectComponent } from '../../shared/select.component';
import { LogHeadComponent } from '../log-head.component';

const SPANS = ['all', 'year', 'two', 'days'] as const;
type Span = (typeof SPANS)[number];
const SPAN_WORDS: Record<Span, string> = {
  all: 'from the beginning',
  year: 'the last year',
  two: 'the last two years',
  days: 'from one day to another',
};

interface Way {
  path: string;
  name: string;
  /** What it is good for. */
  say: string;
  /** The file is of the whole house, whatever is chosen. */
  whole?: boolean;
}
const TABLES: readonly Way[] = [
  { path: 'entries.csv', name: 'Everything that happened', say: 'a line an entry' },
  {
    path: 'readings.csv',
    name: 'What was measured',
    say: 'in your units, with those that were recorded beside them',
  },
  { path: 'loads.csv', name: 'Loads', say: 'with minutes and energy where a meter told them' },
];

/** The record in open formats, to take along: of which machine, of when, and as what. */
@Component({
  selector: 'nc-take',
  imports: [LogHeadComponent, RouterLink, SelectComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './take.component.html',
  styleUrl: './take.component.scss',
})
export class TakeComponent {
  readonly #loaded = toSignal(inject(BenchService).bench$);
  protected readonly role = inject(RoleService);
  readonly #bench = computed(() => this.#loaded()?.value);

  protected readonly machine = signal<string | undefined>(undefined);
  protected readonly machineIds = computed(() => [
    undefined,
    ...(this.#bench()?.machines ?? []).map(({ id }) => id),
  ]);
  protected readonly sayMachine = (id: string | undefined): string =>
    this.#bench()?.machines.find((one) => one.id === id)?.name ?? 'the whole house';
  protected readonly spans = SPANS;
  protected readonly span = signal<Span>('all');
  protected readonly saySpan = (span: Span): string => SPAN_WORDS[span];
  protected readonly today = computed(() => this.#bench()?.today ?? '');
  protected readonly from = signal('');
  protected readonly to = signal('');
  protected readonly wrong = computed(() =>
    this.span() === 'days' && this.from() && this.to() && this.from() > this.to()
      ? 'The last day is before the first.'
      : '',
  );

  protected readonly tables = TABLES;
  readonly #days = computed(() => {
    const today = this.today();
    if (!today) return {};
    switch (this.span()) {
      case 'all':
        return {};
      case 'year':
        return { from: plusDays(today, -365) };
      case 'two':
        return { from: plusDays(today, -730) };
      case 'days':
        return { from: this.from(), to: this.to() };
    }
  });

  protected readonly whoms = FOR_WHOM_IDS;
  protected readonly whom = signal<ForWhomId>('house');
  protected readonly sayWhom = (whom: ForWhomId): string => FOR_WHOM[whom].words;
  protected readonly photoed = signal(true);
  /** What is left out for them. */
  protected readonly leaves = computed(() => {
    const { notes, money, house } = FOR_WHOM[this.whom()];
    const left = [
      notes ? '' : 'your notes',
      money ? '' : 'what things cost',
      house ? '' : 'where your valves and breakers are',
    ].filter(Boolean);
    return left.length ? `Left out: ${left.join(', ')}.` : 'Nothing is left out.';
  });

  protected printOf(id: string): string {
    const photos = this.photoed() ? {} : { photos: 'false' };
    return addressed(`machines/${id}/record.pdf`, {
      ...{ for: this.whom(), ...photos },
      ...this.#days(),
    });
  }

  protected addressOf(path: string): string {
    return addressed(path, { machine: this.machine(), ...this.#days() });
  }
}

/** An address of the API with what is asked of it, as far as that is told. */
function addressed(path: string, ask: Record<string, string | undefined>): string {
  const asked = Object.entries(ask).filter(([, value]) => value) as [string, string][];
  const query = new URLSearchParams(asked).toString();
  return `/api/v1/${path}${query ? `?${query}` : ''}`;
}
