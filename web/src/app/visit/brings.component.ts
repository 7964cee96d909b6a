import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import {
  ACTIVE_NAMES,
  meetingsOf,
  NOTHING,
  productById,
  sayProduct,
  type Brings,
  type Brought,
  type ChemicalEvent,
  type Meeting,
  type Product,
} from '@needlecase/core';
import { NumbersComponent } from '../shared/numbers.component';
import { sayWhen } from '../shared/say-when';

/**
 * Asks what is used at a step, and stops where it would meet something that is still in the machine.
 * What was told is noted at once.
 */
@Component({
  selector: 'nc-brings',
  imports: [NumbersComponent],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './brings.component.html',
  styleUrl: './brings.component.scss',
})
export class BringsComponent {
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly brings = input.required<Brings>();
  readonly brought = input<Brought>();
  /** What is in the machine and was not rinsed out. */
  readonly present = input.required<readonly ChemicalEvent[]>();
  /** A dryer is wiped, not rinsed. */
  readonly dryer = input(false);
  /** Why no full rinse can have run. */
  readonly hindered = input('');
  /** Products used in this house, the latest first. */
  readonly products = input<readonly string[]>([]);

  readonly used = output<string>();
  readonly notUsed = output<void>();
  readonly rinsed = output<void>();

  protected readonly choices = computed<Product[]>(() =>
    this.brings().products.map((id) => productById(id)),
  );
  /** What this house used last time, of those that are asked for. */
  protected readonly last = computed(() =>
    this.products().find((id) => this.brings().products.includes(id)),
  );
  /** Chosen but stopped. */
  protected readonly wanted = linkedSignal<Brought | undefined, string | undefined>({
    source: this.brought,
    computation: () => undefined,
  });
  protected readonly meetings = computed<Meeting[]>(() => {
    const wanted = this.wanted();
    return wanted === undefined ? [] : meetingsOf(wanted, this.present());
  });
  /** One thing said once, though several products may lead to it. */
  protected readonly stops = computed(() => [
    ...new Map(
      this.meetings().map((meeting) => [
        `${meeting.present.product} ${meeting.rule.gives}`,
        meeting,
      ]),
    ).values(),
  ]);
  protected readonly aids = computed(() => [
    ...new Set(this.meetings().map(({ rule }) => rule.aid)),
  ]);
  protected readonly nothing = NOTHING;

  protected choose(product: string): void {
    this.wanted.set(product);
    if (this.meetings().length) {
      // On a phone the list is longer than the screen, and the warning stands above it.
      setTimeout(() => this.#host.querySelector('.stop')?.scrollIntoView({ block: 'center' }));
      return;
    }
    this.wanted.set(undefined);
    this.used.emit(product);
  }

  protected runRinse(): void {
    this.wanted.set(undefined);
    this.rinsed.emit();
  }

  protected name(product: string | undefined): string {
    return product === NOTHING ? 'nothing' : sayProduct(product);
  }

  /** What whoever uses it has to know. */
  protected care(product: string): string | undefined {
    return product === NOTHING ? undefined : productById(product).care;
  }

  protected told({ brought, present, rule, sure }: Meeting): string {
    const there = this.name(present.product);
    const since = `${there} is still in this machine since ${sayWhen(present.at)}`;
    if (sure) return `Stop: ${since}. With ${ACTIVE_NAMES[brought]} it gives ${rule.gives}.`;
    return `Stop: ${since}. One of the two is not known; taken for the worst, they give ${rule.gives}.`;
  }
}
