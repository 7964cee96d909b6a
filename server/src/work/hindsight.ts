import type { HindsightView } from '@needlecase/core/views/hindsight';
import type { Store } from '../store/store.js';
import type { Threads } from '../threads/threads.js';

/** A width that differs by less is kept as it is. */
const SAME = 0.05;

/** How well was foretold, worked out anew where something was written; and the household's own width out of it. */
export class HindsightKeeper {
  #last: { revision: number; view: Promise<HindsightView> } | undefined;

  constructor(
    private readonly store: Store,
    private readonly threads: Threads,
  ) {}

  view(): Promise<HindsightView> {
    const { revision } = this.store;
    if (this.#last?.revision !== revision) {
      const view = this.threads.run('hindsight', undefined);
      this.#last = { revision, view };
      view.catch(() => (this.#last = undefined));
    }
    return this.#last.view;
  }

  /** Widens what is believed where finds lay outside what was said, and narrows it again where they do not. */
  async widen(): Promise<void> {
    if (!this.store.household.get()) return;
    const { widened } = await this.view();
    const household = this.store.household.get();
    if (!household || Math.abs(widened - (household.widened ?? 1)) < SAME) return;
    const { id, version, widened: _before, ...rest } = household;
    this.store.write(() => {
      const draft = widened === 1 ? rest : { ...rest, widened };
      this.store.household.replace(id, version, draft);
      this.store.changed({ topic: 'household' });
    });
  }
}
