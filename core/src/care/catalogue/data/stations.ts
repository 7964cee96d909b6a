import type { MachineKind } from '../../../model/vocabulary.js';
import type { Station } from '../types.js';

const FRONT: MachineKind[] = ['front-load-washer'];
const TOP: MachineKind[] = ['top-load-washer'];
const WASHERS = [...FRONT, ...TOP];
const VENTED: MachineKind[] = ['vented-dryer'];
const WATER_MAKING: MachineKind[] = ['condenser-dryer', 'heat-pump-dryer'];
const DRYERS = [...VENTED, ...WATER_MAKING];

/** Every station, in the order in which water or air passes it. */
export const STATIONS: readonly Station[] = [
  {
    id: 'tap',
    name: 'Tap and fill hose',
    line: 'water',
    kinds: WASHERS,
    what: 'The tap on the wall and the hose that brings water to the back of the machine.',
    fouls:
      'The hose ages under pressure and its washers harden. A bulge, a crack or a damp joint comes before a burst.',
  },
  {
    id: 'inlet-screen',
    name: 'Inlet screen',
    line: 'water',
    kinds: WASHERS,
    what: 'A thimble of fine mesh where the fill hose meets the machine.',
    fouls:
      'Sand, rust and scale from the pipe settle in it. Filling gets slow and rinsing gets poor.',
  },
  {
    id: 'dispenser',
    name: 'Dispenser',
    line: 'water',
    kinds: WASHERS,
    what: 'The drawer or cup for detergent and softener, with the jets and the cavity behind it.',
    fouls:
      'Undissolved detergent and softener feed black mould, first in the roof of the cavity where nobody looks.',
  },
  {
    id: 'gasket',
    name: 'Door gasket',
    line: 'water',
    kinds: FRONT,
    what: 'The rubber bellows between door and drum, with folds and, at the bottom, drain holes.',
    fouls: 'Hair and lint stay in the folds, water stands behind them, and mould follows.',
  },
  {
    id: 'tub',
    name: 'Tub and drum',
    line: 'water',
    kinds: WASHERS,
    what: 'The drum you load and the tub around it that holds the water.',
    fouls:
      'A film of soap, skin grease and fluff grows on the far side of the drum, most of all with cool washes.',
  },
  {
    id: 'pump-filter',
    name: 'Pump filter',
    line: 'water',
    kinds: FRONT,
    when: { filterAccess: ['front-left', 'front-right', 'behind', 'unknown'] },
    what: 'The screw-in strainer at the lowest point, with the pump and its impeller behind it.',
    fouls:
      'Hair, coins and grips collect here until the water cannot leave. Stale water left in it smells.',
  },
  {
    id: 'pump',
    name: 'Drain pump',
    line: 'water',
    kinds: TOP,
    what: 'The pump under the tub. On most top loaders it has no filter that you can reach.',
    fouls: 'Small things that slip past the drum can stop it.',
  },
  {
    id: 'drain-hose',
    name: 'Drain hose',
    line: 'water',
    kinds: WASHERS,
    what: 'The ribbed hose that carries used water up and out.',
    fouls: 'It kinks when the machine is pushed back, and sludge settles in its low loop.',
  },
  {
    id: 'standpipe',
    name: 'Standpipe and trap',
    line: 'water',
    kinds: WASHERS,
    what: 'The pipe, sink or floor drain that takes the water, and the water-filled bend below it.',
    fouls:
      'Lint and soap make a grey sludge in the trap. The water backs up while the machine pumps.',
  },
  {
    id: 'house-drain',
    name: 'House drain',
    line: 'water',
    kinds: WASHERS,
    what: 'The pipe that takes the water out of the house.',
    fouls:
      'When other drains in the house are slow as well, the fault is here and not in the machine.',
  },
  {
    id: 'room-air',
    name: 'Room air',
    line: 'air',
    kinds: DRYERS,
    what: 'The air the dryer draws in from the room.',
    fouls: 'A cold, damp or closed room makes drying slow however clean the machine is.',
  },
  {
    id: 'cabinet',
    name: 'Heater and cabinet',
    line: 'air',
    kinds: VENTED,
    what: 'The inside of the housing, where the air is drawn past the heater on its way to the drum.',
    fouls:
      'Lint that leaks past seals and joints gathers on the floor and round the heater, where it can scorch.',
  },
  {
    id: 'drum-seal',
    name: 'Drum and door seal',
    line: 'air',
    kinds: DRYERS,
    what: 'The drum with the clothes, and the felt or rubber that keeps its air in.',
    fouls: 'Film and fluff gather on the seal, and damp air leaks past it into the room.',
  },
  {
    id: 'sensor',
    name: 'Moisture sensor',
    line: 'air',
    kinds: DRYERS,
    when: { sensor: ['yes', 'unknown'] },
    what: 'Two bare metal strips that feel how damp the clothes are as they tumble past.',
    fouls:
      'Softener and dryer sheets leave a film. The dryer then believes that the load is dry and stops too soon.',
  },
  {
    id: 'lint-screen',
    name: 'Lint screen',
    line: 'air',
    kinds: DRYERS,
    what: 'The mesh that catches lint, in the door frame or in a slot on top.',
    fouls:
      'Lint covers it with each load. Softener and dryer sheets leave a film in the mesh that brushing does not lift.',
  },
  {
    id: 'screen-well',
    name: 'Screen well',
    line: 'air',
    kinds: VENTED,
    when: { screenWell: ['yes', 'unknown'] },
    what: 'The slot the lint screen sits in, and the passage below it.',
    fouls: 'Lint that slips past the screen mats together here.',
  },
  {
    id: 'fine-filter',
    name: 'Fine filter',
    line: 'air',
    kinds: WATER_MAKING,
    what: 'A second, finer filter behind the plinth flap or in the door.',
    fouls: 'It goes grey with what the screen lets through, and the air slows.',
  },
  {
    id: 'blower',
    name: 'Blower',
    line: 'air',
    kinds: DRYERS,
    what: 'The wheel that moves the air.',
    fouls: 'Felted lint packs between its vanes. It rumbles and the air gets weak.',
  },
  {
    id: 'transition-hose',
    name: 'Transition hose',
    line: 'air',
    kinds: VENTED,
    what: 'The short hose from the back of the dryer to the duct in the wall.',
    fouls: 'It is crushed or kinked when the dryer is pushed back, and lint catches in its folds.',
  },
  {
    id: 'duct-run',
    name: 'Duct run',
    line: 'air',
    kinds: VENTED,
    what: 'The duct from the wall to the hood, with its elbows and risers.',
    fouls:
      'Damp lint lines it from the elbows and low points onward. Drying gets longer, and the lint can burn.',
  },
  {
    id: 'hood',
    name: 'Hood outdoors',
    line: 'air',
    kinds: VENTED,
    what: 'The outlet on the outer wall, with a flap that opens when the dryer blows.',
    fouls: 'Lint holds the flap, birds nest in it, and a screen mats over.',
  },
  {
    id: 'heat-exchanger',
    name: 'Heat exchanger',
    line: 'air',
    kinds: WATER_MAKING,
    what: 'The block of thin fins where the damp air cools and gives up its water.',
    fouls: 'Fluff mats between the fins. Half a year unwashed is enough to clog it.',
  },
  {
    id: 'condensate-sump',
    name: 'Condensate pump',
    line: 'condensate',
    kinds: WATER_MAKING,
    what: 'The little sump under the heat exchanger and the pump that empties it.',
    fouls: 'Fluff sludge settles in the sump and stops the pump or its line.',
  },
  {
    id: 'tank',
    name: 'Water tank',
    line: 'condensate',
    kinds: WATER_MAKING,
    when: { condensateTo: ['tank', 'unknown'] },
    what: 'The tank that collects the water taken from the clothes.',
    fouls: 'It fills with each load; full, the dryer stops.',
  },
  {
    id: 'whole',
    name: 'The machine itself',
    line: 'body',
    kinds: [...WASHERS, ...DRYERS],
    what: 'How it stands, and what no single station tells: its feet, its belt, its service.',
    fouls:
      'Feet work loose and a machine begins to walk; belts and rollers wear. It is heard before it is seen.',
  },
];
