import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { loadCareOf, type Machine } from '@needlecase/core';

/** What is known of a load before it goes in: chosen by what it is. */
@Component({
  selector: 'nc-before-load',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label class="form-label" for="before-load">Before this load</label>
    <select
      id="before-load"
      class="form-select"
      #select
      [value]="chosen()"
      (change)="chosen.set(select.value)"
    >
      <option value="">what is it?</option>
      @for (one of care(); track one.id) {
        <option [value]="one.id">{{ one.load }}</option>
      }
    </select>
    @if (told(); as one) {
      <p role="status">
        {{ one.before }}
        @if (one.after) {
          <strong>Afterwards:</strong> {{ one.after }}
        }
        <span class="soft small">{{ one.why }}</span>
      </p>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    p {
      margin: 0.4rem 0 0;
    }
  `,
})
export class BeforeLoadComponent {
  readonly machines = input.required<readonly Machine[]>();
  protected readonly chosen = signal('');
  protected readonly care = computed(() => {
    const all = this.machines().flatMap(({ kind }) => loadCareOf(kind));
    return [...new Map(all.map((one) => [one.id, one])).values()];
  });
  protected readonly told = computed(() => this.care().find(({ id }) => id === this.chosen()));
}
