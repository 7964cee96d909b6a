import { Injectable, signal } from '@angular/core';
import { readLocal, writeLocal } from './local';

const NAME = 'section';

/** Which section of a large house this device looks at: the same for all that is told a section at a time. */
@Injectable({ providedIn: 'root' })
export class SectionService {
  readonly #chosen = signal(readLocal<string>(NAME));
  /** Nothing where nobody chose: then the first is told. */
  readonly chosen = this.#chosen.asReadonly();

  choose(id: string): void {
    writeLocal(NAME, id);
    this.#chosen.set(id);
  }

  /** As it is asked for. */
  asked(): { section?: string } {
    const section = this.#chosen();
    return section === undefined ? {} : { section };
  }
}
