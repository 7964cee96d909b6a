import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { SectionTold } from '@needlecase/core';
import { SectionService } from '../data/section.service';
import { SelectComponent } from './select.component';

/** Which part of a large house is looked at. In a house of usual size there is nothing to choose. */
@Component({
  selector: 'nc-section-choice',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [SelectComponent],
  template: `
    @if (section(); as told) {
      <label>
        <span>Place</span>
        <select
          nc-select
          [options]="ids()"
          [chosen]="told.id"
          [say]="say"
          (chosenChange)="choose($event)"
        ></select>
      </label>
    }
  `,
  styles: `
    label {
      align-items: center;
      display: flex;
      gap: 0.6rem;
      margin: 0 0 0.6rem;
      max-width: 26rem;
    }
    select {
      flex: 1;
      min-height: 2.75rem;
    }
  `,
})
export class SectionChoiceComponent {
  readonly #sections = inject(SectionService);
  readonly section = input.required<SectionTold | undefined>();
  protected readonly ids = computed(() => this.section()?.all.map(({ id }) => id) ?? []);
  readonly #due = computed(() => new Map(this.section()?.all.map(({ id, due }) => [id, due ?? 0])));

  protected readonly say = (id: string): string => {
    const due = this.#due().get(id);
    return due ? `${id}: ${due} due` : id;
  };

  protected choose(id: string): void {
    this.#sections.choose(id);
  }
}
