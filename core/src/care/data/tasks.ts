import type { MachineKind } from '../../model/vocabulary.js';
import type { Task } from '../catalogue.js';

const WASHERS: MachineKind[] = ['front-load-washer', 'top-load-washer'];
const DRYERS: MachineKind[] = ['vented-dryer', 'condenser-dryer', 'heat-pump-dryer'];

/**
 * The tasks with the four schools' intervals. A school's months assume five loads a week. Figures
 * and multipliers are common practice.
 */
export const TASKS: readonly Task[] = [
  {
    id: 'lint-screen-wash',
    station: 'lint-screen',
    name: 'Wash the lint screen',
    kinds: DRYERS,
    driver: 'loads',
    intervals: {
      often: { months: 1 },
      steady: { months: 2 },
      stretch: { months: 6 },
      count: { loads: 40 },
    },
    safety: false,
    setups: [],
    order: 10,
    minutes: { hands: 8, waiting: 60 },
    reason:
      'Softener and dryer sheets leave a film in the mesh that brushing does not lift. Air then passes badly although the screen looks clean.',
    basis: 'common practice',
    speeds: { softener: 2, pets: 1.5, fleece: 1.5 },
  },
  {
    id: 'heat-exchanger',
    station: 'heat-exchanger',
    name: 'Clean the heat exchanger',
    kinds: ['condenser-dryer', 'heat-pump-dryer'],
    driver: 'loads',
    intervals: {
      often: { days: 14 },
      steady: { months: 1 },
      stretch: { months: 3 },
      count: { loads: 25 },
    },
    cap: { months: 6 },
    safety: false,
    setups: ['cold', 'unplugged'],
    order: 20,
    minutes: { hands: 20, waiting: 15 },
    reason:
      'Fluff mats between the fins. The air passes badly, the room gets damp, drying takes longer, and half a year unwashed is enough to clog it.',
    basis: 'common practice; a heat-pump dryer by its own manual',
    speeds: { pets: 1.5, fleece: 1.5 },
  },
  {
    id: 'duct-run',
    station: 'duct-run',
    name: 'Brush the duct run through',
    kinds: ['vented-dryer'],
    driver: 'loads',
    intervals: {
      often: { months: 3 },
      steady: { months: 6, said: 'in spring and in autumn' },
      stretch: { months: 12 },
      count: { loads: 150 },
    },
    cap: { months: 12 },
    safety: true,
    setups: ['cold', 'unplugged', 'gas-off', 'pulled-out', 'outdoors'],
    order: 30,
    minutes: { hands: 45, waiting: 0 },
    reason:
      'Lint lines the duct, drying gets longer, and the lint can burn. Failure to clean is the leading factor in clothes-dryer fires, named in 34 % of them (US Fire Administration, topical report on clothes-dryer fires in homes, 2008 to 2010).',
    basis: 'common practice',
    speeds: { pets: 1.5, fleece: 1.5, 'long-duct': 1.5 },
  },
  {
    id: 'dispenser',
    station: 'dispenser',
    name: 'Clean the dispenser and its cavity',
    kinds: WASHERS,
    driver: 'loads',
    intervals: {
      often: { days: 14 },
      steady: { months: 1 },
      stretch: { months: 3 },
      count: { loads: 25 },
    },
    safety: false,
    setups: [],
    order: 40,
    minutes: { hands: 12, waiting: 15 },
    reason:
      'What is left of detergent and softener feeds black mould above the drawer, and it drips into every wash.',
    basis: 'common practice',
    speeds: { softener: 2, overdose: 1.5, 'unheated-room': 1.25, 'door-shut': 2 },
  },
  {
    id: 'gasket-folds',
    station: 'gasket',
    name: 'Clean the gasket folds',
    kinds: ['front-load-washer'],
    driver: 'loads',
    intervals: {
      often: { days: 14 },
      steady: { months: 1 },
      stretch: { months: 3 },
      count: { loads: 25 },
    },
    safety: false,
    setups: ['unplugged'],
    order: 50,
    minutes: { hands: 12, waiting: 20 },
    reason:
      'Hair and lint plug the drain holes at the bottom of the fold. Water stands there, smells, and the rubber turns black.',
    basis: 'common practice',
    speeds: { pets: 1.5, 'muddy-clothes': 1.5, 'unheated-room': 1.25, 'door-shut': 2 },
  },
  {
    id: 'pump-filter',
    station: 'pump-filter',
    name: 'Clean the pump filter',
    kinds: ['front-load-washer'],
    when: { filterAccess: ['front-left', 'front-right', 'behind', 'unknown'] },
    driver: 'loads',
    intervals: {
      often: { days: 30 },
      steady: { months: 2 },
      stretch: { months: 6 },
      count: { loads: 50 },
    },
    cap: { months: 6 },
    safety: false,
    setups: ['cold', 'unplugged', 'water-off', 'flap-open'],
    order: 60,
    minutes: { hands: 20, waiting: 0 },
    reason:
      'Hair, coins and grips collect in it until the drum stands full. A filter opened in time costs twenty minutes and a towel.',
    basis: 'common practice',
    speeds: { pets: 1.5, 'muddy-clothes': 1.5, fleece: 1.5 },
  },
];
