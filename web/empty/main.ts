import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection } from '@angular/core';
import { bootstrapApplication } from '@angular/platform-browser';

/** A page that shows one word: what the benchmark holds the Bench against. */
@Component({
  selector: 'nc-root',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button type="button">Empty</button>`,
})
class EmptyComponent {}

bootstrapApplication(EmptyComponent, { providers: [provideZonelessChangeDetection()] }).catch(
  (error: unknown) => console.error(error),
);
