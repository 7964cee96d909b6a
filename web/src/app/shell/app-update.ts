import { effect, ErrorHandler, inject, Injectable } from '@angular/core';
import { SwUpdate } from '@angular/service-worker';
import { filter } from 'rxjs';
import { ApiProblem } from '../data/api.service';
import { ChangesService } from '../data/changes.service';
import { ToastsService } from '../data/toasts.service';

/** Says, once, that the page is to be loaded anew, and does it when the person wants. */
@Injectable({ providedIn: 'root' })
export class Newer {
  readonly #toasts = inject(ToastsService);
  readonly #worker = inject(SwUpdate);
  #said = new Set<string>();

  say(text: string): void {
    if (this.#said.has(text)) return;
    this.#said.add(text);
    this.#toasts.show(text, {
      stays: true,
      action: { label: 'Reload', do: () => void this.#reload() },
    });
  }

  /** With a worker the newer one has to be fetched first: it would serve the old one again. */
  async #reload(): Promise<void> {
    if (this.#worker.isEnabled) {
      await this.#worker.checkForUpdate().catch(() => false);
      await this.#worker.activateUpdate().catch(() => false);
    }
    location.reload();
  }
}

const NEWER = 'A newer Needlecase is there.';

/** Says when the server has a newer application, with or without a service worker. */
export function tellOfUpdates(): void {
  const newer = inject(Newer);
  const changes = inject(ChangesService);
  effect(() => {
    if (changes.newer()) newer.say(NEWER);
  });
  inject(SwUpdate)
    .versionUpdates.pipe(filter(({ type }) => type === 'VERSION_READY'))
    .subscribe(() => newer.say(NEWER));
}

/** What browsers say where a part of the program cannot be fetched. */
const PART_MISSING =
  /dynamically imported module|module script failed|importing a module|ChunkLoadError|Loading dependencies/i;

/** No click does nothing: where the program fails, or a part of it is not to be had, it says so. */
@Injectable()
export class FaultsTold extends ErrorHandler {
  readonly #newer = inject(Newer);

  override handleError(error: unknown): void {
    super.handleError(error);
    // Without a connection everything says so where it stands.
    if (error instanceof ApiProblem && error.unreachable) return;
    const missing = PART_MISSING.test(String((error as Error | undefined)?.message ?? error));
    this.#newer.say(
      missing
        ? 'A part of Needlecase could not be loaded: there is no connection, or a newer one is there.'
        : 'Something here did not work as it should. What you noted is kept. If it stays so, load the page anew.',
    );
  }
}
