import { inject } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';
import { filter } from 'rxjs';
import { ToastsService } from '../data/toasts.service';

/** Says when a newer application is ready; it is taken when the person wants. */
export function tellOfUpdates(): void {
  const toasts = inject(ToastsService);
  inject(SwUpdate)
    .versionUpdates.pipe(filter(({ type }) => type === 'VERSION_READY'))
    .subscribe(() =>
      toasts.show('A newer Needlecase is ready.', {
        action: { label: 'Use it', do: () => location.reload() },
      }),
    );
}
