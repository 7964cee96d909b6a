import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';

/** What can be chosen; `undefined` stands for nothing chosen. */
type Choosable = string | number | undefined;

/**
 * A native select whose choices and choice keep their type.
 *
 * @example <select nc-select [options]="threads" [(chosen)]="thread"></select>
 */
@Component({
  selector: 'select[nc-select]',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (one of shown(); track one.key) {
      <option [value]="one.key" [selected]="one.selected">{{ one.words }}</option>
    }
  `,
  host: { class: 'form-select', '(change)': 'choose($event)' },
})
export class SelectComponent<T extends Choosable> {
  readonly options = input.required<readonly T[]>();
  readonly chosen = model.required<T>();
  /** The words of a choice, where they are not its value. */
  readonly say = input<(one: T) => string>(String);

  protected readonly shown = computed(() =>
    this.options().map((one) => ({
      key: keyOf(one),
      words: this.say()(one),
      selected: one === this.chosen(),
    })),
  );

  protected choose(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    const found = this.options().find((one) => keyOf(one) === value);
    if (this.options().includes(found as T)) this.chosen.set(found as T);
  }
}

const keyOf = (one: Choosable): string => (one === undefined ? '' : String(one));
