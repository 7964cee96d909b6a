import {
  CONDENSING,
  DRYERS,
  DRYING,
  FRONT_LOADERS,
  MACHINE_KINDS,
  WASHERS,
  type HabitId,
  type MachineKind,
} from '../../../model/vocabulary.js';
import { spoken } from '../../../regions/spoken.js';

/** Something done with every load, before or after it. Never due, never counted against anybody. */
export interface LoadHabit {
  id: string;
  when: 'before' | 'after';
  kinds: readonly MachineKind[];
  /** Shown only where the household has this habit of use. */
  only?: HabitId;
  /** A word or three, as done: "Pockets emptied". */
  name: string;
  why: string;
  /** The task that this does, where there is one. */
  task?: string;
}

/** Common practice. */
export const LOAD_HABITS: readonly LoadHabit[] = spoken([
  {
    id: 'pockets',
    when: 'before',
    kinds: WASHERS,
    name: 'Pockets emptied',
    why: 'Coins, grips and tissues are what the pump filter catches.',
  },
  {
    id: 'lint-roller',
    when: 'before',
    kinds: WASHERS,
    only: 'pets',
    name: 'Pet hair rolled off',
    why: 'Dry hair comes off in one pull; wet hair felts in the filter.',
  },
  {
    id: 'nets',
    when: 'before',
    kinds: WASHERS,
    name: 'Small things in nets',
    why: 'A baby sock fits through the gap between drum and gasket.',
  },
  {
    id: 'sorted',
    when: 'before',
    kinds: WASHERS,
    name: 'Sorted by weight and colour',
    why: 'One heavy towel among shirts throws the spin out of balance.',
  },
  {
    id: 'room-left',
    when: 'before',
    kinds: WASHERS,
    name: 'A hand’s width left free',
    why: 'Clothes that cannot fall are not washed; past its mark the machine leaks and wears its bearings.',
  },
  {
    id: 'measured',
    when: 'before',
    kinds: WASHERS,
    name: 'Detergent measured',
    why: 'What the rinse cannot carry away stays in the machine and feeds mould.',
  },
  {
    id: 'not-overfilled',
    when: 'before',
    kinds: DRYERS,
    name: 'Drum about half full',
    why: 'Air must get between the clothes; a full drum dries long and creases.',
  },
  {
    id: 'alike',
    when: 'before',
    kinds: DRYERS,
    name: 'Similar sizes together',
    why: 'A large sheet wraps the small things and keeps them wet, and the dryer runs on for them.',
  },
  {
    id: 'nobody-inside',
    when: 'before',
    kinds: MACHINE_KINDS,
    name: 'Looked into the drum',
    why: 'Children and pets climb in. A lighter left in a pocket catches fire in a dryer.',
  },
  {
    id: 'at-home',
    when: 'before',
    kinds: MACHINE_KINDS,
    name: 'Somebody awake and at home',
    why: 'A burst hose or a load that smoulders is stopped in minutes, or not at all.',
  },
  {
    id: 'cooled-down',
    when: 'after',
    kinds: DRYING,
    name: 'Cool-down finished, laundry out',
    why: 'Hot laundry left in a heap goes on heating until it burns.',
  },
  {
    id: 'out-promptly',
    when: 'after',
    kinds: WASHERS,
    name: 'Laundry out promptly',
    why: 'Wet laundry smells after a few hours, and the drum with it.',
  },
  {
    id: 'gasket-wipe',
    when: 'after',
    kinds: FRONT_LOADERS,
    name: 'Gasket wiped, door ajar',
    why: 'A dry fold grows nothing.',
    task: 'gasket-wipe',
  },
  {
    id: 'ajar',
    when: 'after',
    kinds: ['top-load-washer'],
    name: 'Lid left open',
    why: 'Air is what keeps mould away.',
  },
  {
    id: 'screen',
    when: 'after',
    kinds: DRYERS,
    name: 'Lint screen brushed off',
    why: 'A full screen slows the next load and sends lint past it.',
    task: 'lint-screen-brush',
  },
  {
    id: 'tank',
    when: 'after',
    kinds: CONDENSING,
    name: 'Tank emptied',
    why: 'A full tank stops the next load half way.',
    task: 'tank-empty',
  },
]);
