import type { Db } from '../db/open.js';
import type { Change, Changes } from '../http/changes.js';
import { AnswerStore } from './answers.js';
import { CaseStore } from './cases.js';
import { CodeSheetStore } from './code-sheets.js';
import { EntryStore } from './entries.js';
import { HouseholdStore } from './household.js';
import { MachineStore } from './machines.js';
import { PhotoStore } from './photos.js';
import { VisitStore } from './visits.js';
import { SupplyStore } from './supplies.js';
import { VentRunStore } from './vent-runs.js';

/** Everything that is kept, and the transactions around it. */
export class Store {
  readonly answers: AnswerStore;
  readonly cases: CaseStore;
  readonly codeSheets: CodeSheetStore;
  readonly entries: EntryStore;
  readonly household: HouseholdStore;
  readonly machines: MachineStore;
  readonly photos: PhotoStore;
  readonly visits: VisitStore;
  readonly supplies: SupplyStore;
  readonly ventRuns: VentRunStore;
  #told: Change[] = [];

  constructor(
    private readonly db: Db,
    private readonly changes?: Changes,
  ) {
    this.answers = new AnswerStore(db);
    this.cases = new CaseStore(db);
    this.codeSheets = new CodeSheetStore(db);
    this.entries = new EntryStore(db);
    this.household = new HouseholdStore(db);
    this.machines = new MachineStore(db);
    this.photos = new PhotoStore(db);
    this.visits = new VisitStore(db);
    this.supplies = new SupplyStore(db);
    this.ventRuns = new VentRunStore(db);
  }

  /** Notes a change, to be told to open screens once it is committed. */
  changed(change: Change): void {
    this.#told.push(change);
  }

  /** Runs work in one transaction: all of it is stored, or nothing. */
  write<T>(work: () => T): T {
    this.#told = [];
    try {
      const result = this.db.$client.transaction(work).immediate();
      for (const change of this.#told) this.changes?.tell(change);
      return result;
    } catch (error) {
      this.entries.dropCaches();
      throw error;
    }
  }

  /** Runs a statement on the data file itself, past all rules but its own. */
  sql(statement: string): void {
    this.db.$client.exec(statement);
  }

  close(): void {
    this.db.$client.close();
  }
}
