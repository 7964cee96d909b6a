import type { Db } from '../db/open.js';
import { TOPICS, type Change, type Changes } from '../http/changes.js';
import { heldBack, type ProblemError } from '../http/problem.js';
import { AbsenceStore } from './absences.js';
import { AnswerStore } from './answers.js';
import { BusyStore } from './busy.js';
import { CaseStore } from './cases.js';
import { CodeSheetStore } from './code-sheets.js';
import { EntryStore } from './entries.js';
import { HouseholdStore } from './household.js';
import { MachineStore } from './machines.js';
import { MailStore } from './mail.js';
import { MeterDayStore } from './meter-days.js';
import { LiveMeterStore } from './meters.js';
import { PersonStore } from './persons.js';
import { DocumentStore } from './documents.js';
import { PhotoStore } from './photos.js';
import { PlannedStore } from './planned.js';
import { VisitStore } from './visits.js';
import { SupplyStore } from './supplies.js';
import { VentRunStore } from './vent-runs.js';

/** Everything that is kept, and the transactions around it. */
export class Store {
  readonly absences: AbsenceStore;
  readonly answers: AnswerStore;
  readonly busy: BusyStore;
  readonly cases: CaseStore;
  readonly codeSheets: CodeSheetStore;
  readonly entries: EntryStore;
  readonly household: HouseholdStore;
  readonly machines: MachineStore;
  readonly mail: MailStore;
  readonly meterDays: MeterDayStore;
  readonly meters: LiveMeterStore;
  readonly persons: PersonStore;
  readonly photos: PhotoStore;
  readonly documents: DocumentStore;
  readonly planned: PlannedStore;
  readonly visits: VisitStore;
  readonly supplies: SupplyStore;
  readonly ventRuns: VentRunStore;
  #told: Change[] = [];
  #held: string | undefined;
  /** Grows with everything that is written, so that what was answered before can be told from what is now. */
  revision = 0;

  constructor(
    private readonly db: Db,
    private readonly changes?: Changes,
    /** Why nothing can be stored now: asked before each write, and after it, before it is thanked for. */
    private readonly stopped: () => ProblemError | undefined = () => undefined,
  ) {
    this.absences = new AbsenceStore(db);
    this.answers = new AnswerStore(db);
    this.busy = new BusyStore(db);
    this.cases = new CaseStore(db);
    this.codeSheets = new CodeSheetStore(db);
    this.entries = new EntryStore(db);
    this.household = new HouseholdStore(db);
    this.machines = new MachineStore(db);
    this.mail = new MailStore(db);
    this.meterDays = new MeterDayStore(db);
    this.meters = new LiveMeterStore(db);
    this.persons = new PersonStore(db);
    this.photos = new PhotoStore(db);
    this.documents = new DocumentStore(db);
    this.planned = new PlannedStore(db);
    this.visits = new VisitStore(db);
    this.supplies = new SupplyStore(db);
    this.ventRuns = new VentRunStore(db);
  }

  /** Notes a change, to be told to open screens once it is committed. */
  changed(change: Change): void {
    this.#told.push(change);
  }

  /**
   * Lets nobody write while some work is done.
   * @param why in words
   */
  async hold<T>(why: string, work: () => Promise<T>): Promise<T> {
    if (this.#held !== undefined) throw heldBack(this.#held);
    this.#held = why;
    try {
      return await work();
    } finally {
      this.#held = undefined;
    }
  }

  /** Tells open screens of a change that is no part of a transaction. */
  tell(change: Change): void {
    this.changes?.tell(change);
  }

  /** Forgets what was derived, and tells every open screen to read all of it anew. */
  changedWhole(): void {
    this.dropCaches();
    for (const topic of TOPICS) this.changes?.tell({ topic });
  }

  /**
   * Runs work in one transaction: all of it is stored, or nothing.
   * @throws 503 while the file is held
   */
  write<T>(work: () => T): T {
    const result = this.derive(work);
    this.revision++;
    return result;
  }

  /** The same for what only follows from what is there: nothing that was answered before is untrue by it. */
  derive<T>(work: () => T): T {
    this.mayWrite();
    this.#told = [];
    this.entries.begin();
    try {
      const result = this.db.$client.transaction(work).immediate();
      this.#mustBeThere();
      for (const change of this.#told) this.changes?.tell(change);
      return result;
    } catch (error) {
      this.revision++;
      this.entries.takenBack();
      this.#forget();
      throw error;
    }
  }

  /**
   * Runs work in one transaction of which nothing else is derived: what was answered before still holds.
   * @throws 503 while the file is held
   */
  writeBeside<T>(work: () => T): T {
    this.mayWrite();
    const result = this.db.$client.transaction(work).immediate();
    this.#mustBeThere();
    return result;
  }

  /** Why nothing can be stored now: the file is held, or is no longer where it was. */
  whyNot(): ProblemError | undefined {
    return this.#held === undefined ? this.stopped() : heldBack(this.#held);
  }

  /** @throws 503 while nothing can be stored */
  mayWrite(): void {
    const problem = this.whyNot();
    if (problem) throw problem;
  }

  /** @throws 503 where the file is no longer where it was: another handle of it would read something else */
  mayRead(): void {
    this.#mustBeThere();
  }

  #mustBeThere(): void {
    const problem = this.stopped();
    if (problem) throw problem;
  }

  /** Drops all that was read and derived: another connection has written. */
  dropCaches(): void {
    this.revision++;
    this.entries.dropCaches();
    this.#forget();
  }

  #forget(): void {
    const stores = [
      this.household,
      this.machines,
      this.supplies,
      this.visits,
      this.cases,
      this.persons,
      this.planned,
    ];
    for (const one of stores) one.forget();
  }

  /** Runs a statement on the data file itself, past all rules but its own. */
  sql(statement: string): void {
    this.db.$client.exec(statement);
  }

  close(): void {
    this.db.$client.close();
  }
}
