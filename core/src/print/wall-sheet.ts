import { isDryer, isWasher, KIND_NAMES } from '../model/vocabulary.js';
import type { Household, Machine } from '../model/schemas.js';
import { rulesOf } from '../regions/rules.js';
import { spoken } from '../regions/spoken.js';
import { PLACE_NAMES, type HousePlace } from '../trouble/data/types.js';
import { sayDay, sayWeekday } from '../units/calendar.js';
import type { PlannedTaskView, HousePlan } from '../views/plan.js';

/** What is drawn beside a word on the sheet. */
export type WallDrawing =
  'pockets' | 'dose' | 'ajar' | 'fold' | 'screen' | 'flap' | 'tank' | 'oil' | 'awake';

/** A visit as it stands on a wall. */
export interface WallVisit {
  day: string;
  said: string;
  tasks: Pick<PlannedTaskView, 'name' | 'line' | 'safety'>[];
  /** So many more have no room. */
  more: number;
}

/** A sheet for the wall of a laundry place. What it looks like is not its business. */
export interface WallSheet {
  place: string;
  lead: string;
  printed: string;
  habits: {
    line: 'water' | 'air';
    who: string;
    each: { drawing: WallDrawing; caption: string }[];
  }[];
  visits: WallVisit[];
  /** Where to stop it: what, and where it is; not known yet where it is empty. */
  stops: { name: string; where: string }[];
  machines: string[];
  never: string[];
  alarm: string;
  /** Where its code leads. */
  address: string;
}

const WASHES: { drawing: WallDrawing; caption: string }[] = spoken([
  { drawing: 'pockets', caption: 'Empty the pockets' },
  { drawing: 'dose', caption: 'Dose to the mark' },
  { drawing: 'ajar', caption: 'Door or lid left open' },
  { drawing: 'fold', caption: 'Wipe the fold' },
]);
const DRIES: { drawing: WallDrawing; caption: string }[] = spoken([
  { drawing: 'screen', caption: 'Clear the screen' },
  { drawing: 'flap', caption: 'Flap opens?' },
  { drawing: 'tank', caption: 'Empty the tank' },
  { drawing: 'oil', caption: 'No oil in it' },
  { drawing: 'awake', caption: 'Only while awake' },
]);

/** What never to do, by what stands there. Common practice; product labels and manuals say the same. */
const NEVER: { text: string; where: (machine: Machine) => boolean }[] = spoken([
  {
    text: 'Chlorine and acid in one machine, or one after the other',
    where: ({ kind }) => isWasher(kind),
  },
  { text: 'A hand in the drum while it turns', where: () => true },
  { text: 'The dryer without its lint screen', where: ({ kind }) => isDryer(kind) },
  {
    text: 'The filter open while water stands in the glass',
    where: ({ kind }) => isWasher(kind) && kind !== 'top-load-washer',
  },
  { text: 'The machine moved with the plug in', where: () => true },
  {
    text: 'The gas dryer run with its duct off',
    where: ({ features }) => features.energy === 'gas',
  },
]);

const MOST_TASKS = 6;
const MOST_VISITS = 3;

/**
 * The sheet of a place: habits with each load, the next three visits, where to stop it, and what never to do.
 * @param address where its code leads
 * @throws RangeError where nothing stands at the place
 */
export function wallSheet(
  view: HousePlan,
  machines: readonly Machine[],
  place: string,
  address: string,
): WallSheet {
  const here = machines.filter((machine) => machine.place === place);
  if (here.length === 0) throw new RangeError(`Nothing stands at “${place}”.`);
  const { household, start } = view;
  const next = view.visits
    .filter((one) => one.place === place && !one.done && one.skipped === undefined)
    .slice(0, MOST_VISITS);
  const until = next.at(-1)?.day;
  return {
    place,
    lead: `${household.name}: ${here.map(({ name, kind }) => `${name} (${KIND_NAMES[kind]})`).join(', ')}`,
    printed: `Printed ${sayDay(start)}${until ? `; good until ${sayDay(until)}` : ''}`,
    habits: habitsAt(here),
    visits: next.map(({ day, who, minutes, tasks }) => ({
      day: sayWeekday(day),
      said: [who, `${minutes} min`].filter(Boolean).join(', '),
      tasks: tasks.slice(0, MOST_TASKS).map(({ name, line, safety }) => ({ name, line, safety })),
      more: Math.max(0, tasks.length - MOST_TASKS),
    })),
    stops: stopsAt(household, here),
    machines: here.map(({ name }) => name),
    never: NEVER.filter(({ where }) => here.some(where)).map(({ text }) => text),
    alarm: sayAlarm(household),
    address,
  };
}

/** What to do where it burns, in one line. */
export const sayAlarm = (household: Household): string =>
  `Smoke or fire: the drum stays shut, breaker off on your way, out, call ${household.numbers?.emergency ?? rulesOf(household).emergency}.`;

function habitsAt(here: readonly Machine[]): WallSheet['habits'] {
  const front = here.some(({ kind }) => isWasher(kind) && kind !== 'top-load-washer');
  const vented = here.some(({ features }) => features.ventPath !== undefined);
  const tank = here.some(({ features }) => features.condensateTo === 'tank');
  return [
    ...(here.some(({ kind }) => isWasher(kind))
      ? [
          {
            line: 'water' as const,
            who: 'Washer',
            each: WASHES.filter(({ drawing }) => drawing !== 'fold' || front),
          },
        ]
      : []),
    ...(here.some(({ kind }) => isDryer(kind))
      ? [
          {
            line: 'air' as const,
            who: 'Dryer',
            each: DRIES.filter(({ drawing }) =>
              drawing === 'flap' ? vented : drawing === 'tank' ? tank : true,
            ).map(({ drawing, caption }) => ({ drawing, caption })),
          },
        ]
      : []),
  ];
}

function stopsAt(household: Household, here: readonly Machine[]): WallSheet['stops'] {
  const gas = here.some(({ features }) => features.energy === 'gas');
  const places: HousePlace[] = ['stopValve', 'breaker', ...(gas ? (['gasValve'] as const) : [])];
  return places.map((id) => ({ name: PLACE_NAMES[id], where: household.places?.[id] ?? '' }));
}
