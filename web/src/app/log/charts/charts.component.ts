import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { BenchService } from '../../data/bench.service';
import { readLocal, writeLocal } from '../../data/local';
import { ChartPanelComponent } from './chart-panel.component';
import { read, written, type Question } from './question';
import { LogHeadComponent } from '../log-head.component';

const SAVED = 'chart-questions';
const MOST_SAVED = 20;
interface Saved {
  name: string;
  a: string;
  b?: string;
}

/** The record as charts: one question, or two side by side; questions that are asked again are kept by name. */
@Component({
  selector: 'nc-charts',
  imports: [ChartPanelComponent, LogHeadComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './charts.component.html',
  styleUrl: './charts.component.scss',
})
export class ChartsComponent {
  readonly #router = inject(Router);
  readonly #loaded = toSignal(inject(BenchService).bench$);

  /** From the address: what is asked, and what beside it. */
  readonly a = input<string>();
  readonly b = input<string>();

  protected readonly bench = computed(() => this.#loaded()?.value);
  protected readonly first = computed(() => read(this.a()));
  protected readonly second = computed(() => (this.b() === undefined ? undefined : read(this.b())));
  protected readonly saved = signal<readonly Saved[]>(readLocal<Saved[]>(SAVED) ?? []);
  /** What is asked now, as the first panel has it: it fills in what the address leaves open. */
  readonly #now = signal<Question | undefined>(undefined);

  protected askFirst(question: Question): void {
    this.#now.set(question);
    this.#go({ a: written(question) });
  }
  protected askSecond(question: Question): void {
    this.#go({ b: written(question) });
  }
  protected beside(): void {
    this.#go({ b: this.a() ?? '' });
  }
  protected alone(): void {
    this.#go({ b: null });
  }
  protected open({ a, b }: Saved): void {
    this.#go({ a, b: b ?? null });
  }

  protected save(name: string): void {
    const said = name.trim();
    const a = this.a() ?? (this.#now() ? written(this.#now()!) : '');
    if (!said) return;
    const b = this.b();
    const others = this.saved().filter((one) => one.name !== said);
    this.#keep([...others, { name: said, a, ...(b === undefined ? {} : { b }) }]);
  }
  protected forget({ name }: Saved): void {
    this.#keep(this.saved().filter((one) => one.name !== name));
  }
  #keep(all: readonly Saved[]): void {
    const kept = all.slice(-MOST_SAVED);
    this.saved.set(kept);
    writeLocal(SAVED, kept);
  }

  #go(queryParams: Record<string, string | null>): void {
    void this.#router.navigate([], {
      queryParams,
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }
}
