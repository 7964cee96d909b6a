import {
  HOUSE_TROUBLES,
  type HouseTrouble,
  type HouseTroubleName,
} from '@needlecase/core/model/health';
import { isDeepStrictEqual } from 'node:util';

/** What is told of a trouble. */
export interface Told {
  title: string;
  detail: string;
}

/** Who looks for one kind of trouble: what there is now, or nothing. */
export type Look = (now: number) => Told | undefined | Promise<Told | undefined>;

/**
 * Watches over what the household relies on without looking: its file, the disk, the backups, the clock, threads,
 * certificates and brokers. Each look tells of one kind; what there is is kept with since when.
 */
export class HouseWatch {
  readonly #looks = new Map<HouseTroubleName, Look>();
  readonly #found = new Map<HouseTroubleName, Told & { since: number }>();

  /**
   * @param changed is called when there is another trouble than before, or one less
   * @param failed is told when a look itself failed
   */
  constructor(
    private readonly changed: () => void,
    private readonly failed: (error: unknown) => void = () => undefined,
    private readonly now: () => number = () => Date.now(),
  ) {}

  /** Looks for a kind of trouble from now on, each time that all is looked at. */
  add(what: HouseTroubleName, look: Look): void {
    this.#looks.set(what, look);
  }

  /** Looks at everything. */
  async look(): Promise<void> {
    for (const what of this.#looks.keys()) await this.lookAt(what);
  }

  async lookAt(what: HouseTroubleName): Promise<void> {
    try {
      this.say(what, await this.#looks.get(what)?.(this.now()));
    } catch (error) {
      this.failed(error);
    }
  }

  /** Says what there is of a kind now. */
  say(what: HouseTroubleName, told: Told | undefined): void {
    const before = this.#found.get(what);
    if (!told) {
      if (this.#found.delete(what)) this.changed();
      return;
    }
    const { since = this.now(), ...said } = before ?? {};
    if (isDeepStrictEqual(said, told)) return;
    this.#found.set(what, { ...told, since });
    this.changed();
  }

  /** What is wrong now, the longest first. */
  get troubles(): HouseTrouble[] {
    return [...this.#found]
      .map(([what, { since, ...told }]) => ({
        ...{ what, ...told, ...HOUSE_TROUBLES[what] },
        since: new Date(since).toISOString(),
      }))
      .sort((a, b) => a.since.localeCompare(b.since));
  }
}
