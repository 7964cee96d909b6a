import type { EntryDraft, VisitProgress } from '../../model/schemas.js';
import { meetings, unrinsed, type ChemicalEvent, type Meeting } from '../../chemistry/guard.js';
import { NOTHING, productById } from '../../chemistry/products.js';
import { isWasher, type EntrySource } from '../../model/vocabulary.js';
import type { Build } from '../catalogue/types.js';
import type { History } from '../record/history.js';
import { stationOf, type VisitPlan } from './plan.js';
import type { VisitStep } from './visit-step.js';

/** What the record says is still in a machine. */
export interface Chemicals {
  /** UTC instant, milliseconds, of the last full rinse or wash: nothing from before is left. */
  since?: number;
  events: ChemicalEvent[];
}

/** Of a washer, a load counted is a wash with its own rinses. */
export function chemicalsOf(
  machine: Pick<Build, 'kind'>,
  history: Pick<History, 'chemicals' | 'usage'>,
): Chemicals {
  const rinses = history.chemicals.filter(
    ({ kind, station }) => kind === 'rinse' && station === undefined,
  );
  const since = Math.max(
    isWasher(machine.kind) ? (history.usage.lastCounted ?? -Infinity) : -Infinity,
    rinses.at(-1)?.at ?? -Infinity,
  );
  const events = unrinsed(history.chemicals, since);
  return since === -Infinity ? { events } : { since, events };
}

/** The product last used of each kind that a step asks for: the answer offered first next time. */
export function productsUsed(histories: Iterable<Pick<History, 'chemicals'>>): string[] {
  const used = [...histories]
    .flatMap(({ chemicals }) => chemicals)
    .filter(({ product }) => product !== undefined)
    .sort((a, b) => b.at - a.at)
    .map(({ product }) => product!);
  return [...new Set(used)];
}

/** Under this key a visit keeps a full rinse that was told at no step. */
export const fullRinseKey = (machineId: string): string => `${machineId}/rinse`;

/** What a visit under way has put in and rinsed out, of one machine. */
export function eventsOfVisit(
  plan: VisitPlan,
  machine: Build & { id: string },
  { brought = {}, rinsed = {} }: Pick<VisitProgress, 'brought' | 'rinsed'>,
): ChemicalEvent[] {
  const between = rinsed[fullRinseKey(machine.id)];
  const rinses: ChemicalEvent[] = between
    ? [{ entryId: between.entryId, at: Date.parse(between.at), kind: 'rinse', actives: [] }]
    : [];
  const ofSteps = plan.steps
    .filter(({ machineId }) => machineId === machine.id)
    .flatMap((step): ChemicalEvent[] => {
      const station = stationOf(step, machine);
      const used = brought[step.key];
      const rinse = rinsed[step.key];
      return [
        ...(used?.entryId
          ? [
              {
                entryId: used.entryId,
                at: Date.parse(used.at),
                kind: 'chemical' as const,
                product: used.product,
                actives: productById(used.product).actives,
                ...(station ? { station } : {}),
              },
            ]
          : []),
        ...(rinse
          ? [
              {
                entryId: rinse.entryId,
                at: Date.parse(rinse.at),
                kind: 'rinse' as const,
                actives: [],
                ...(rinsesOnly(step, station) ? { station: station! } : {}),
              },
            ]
          : []),
      ];
    });
  return [...rinses, ...ofSteps];
}

const rinsesOnly = ({ step }: VisitStep, station: string | undefined): boolean =>
  step.rinses === 'station' && station !== undefined;

/** What is in a machine now: by the record, and by the visit under way. */
export const presentIn = (
  { events, since }: Chemicals,
  ofVisit: readonly ChemicalEvent[] = [],
): ChemicalEvent[] => unrinsed([...events, ...ofVisit], since);

/** What a product would meet if it were used now. */
export const meetingsOf = (product: string, present: readonly ChemicalEvent[]): Meeting[] =>
  product === NOTHING ? [] : meetings(productById(product).actives, present);

/**
 * Steps of a plan that cannot be done before a full rinse, whatever is used at them.
 * @param present by machine
 */
export function stoppedSteps(
  plan: Pick<VisitPlan, 'steps'>,
  present: (machineId: string) => readonly ChemicalEvent[],
): VisitStep[] {
  const rinsed = new Set<string>();
  return plan.steps.filter(({ machineId, step }) => {
    if (step.rinses === 'all') rinsed.add(machineId);
    const there = rinsed.has(machineId) ? [] : present(machineId);
    return (
      step.brings?.always === true &&
      step.brings.products.every((product) => meetingsOf(product, there).length > 0)
    );
  });
}

/** The entry that a product used at a step leaves. */
export const entryOfUse = (
  step: VisitStep,
  product: string,
  machine: Build,
  at: string,
): EntryDraft => ({
  machineId: step.machineId,
  kind: 'chemical',
  at,
  source: 'run',
  product,
  actives: [...productById(product).actives],
  ...placeOf(step, machine),
});

/** The entry of a product used outside a visit; without a station, in the machine itself. */
export const entryOfProduct = (
  machineId: string,
  product: string,
  at: string,
  station = '',
): EntryDraft => ({
  machineId,
  kind: 'chemical',
  at,
  source: 'machine',
  product,
  actives: [...productById(product).actives],
  ...(station ? { station } : {}),
});

/** The entry of a full rinse, told at no step. */
export const entryOfFullRinse = (
  machineId: string,
  at: string,
  source: EntrySource,
): EntryDraft => ({ machineId, kind: 'rinse', at, source });

/** The entry of a rinse: of the whole machine, or of one station's parts. */
export const entryOfRinse = (step: VisitStep, machine: Build, at: string): EntryDraft => ({
  machineId: step.machineId,
  kind: 'rinse',
  at,
  source: 'run',
  ...(rinsesOnly(step, stationOf(step, machine)) ? placeOf(step, machine) : {}),
});

function placeOf(step: VisitStep, machine: Build): Pick<EntryDraft, 'station' | 'task'> {
  const station = stationOf(step, machine);
  return station && step.task ? { station, task: step.task } : {};
}
