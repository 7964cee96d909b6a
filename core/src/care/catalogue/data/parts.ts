import {
  CONDENSING,
  DRYERS,
  FRONT_LOADERS,
  VENTED,
  WASHERS,
  type MachineKind,
} from '../../../model/vocabulary.js';
import { spoken } from '../../../regions/spoken.js';

/** Who puts it in: anybody, somebody who has done it before, or only a professional. */
export type PartBy = 'anybody' | 'skilled' | 'professional';

/** A part that wears, and is replaced rather than cleaned. All of it is common practice. */
export interface Part {
  id: string;
  name: string;
  station: string;
  /** Where it is on machines that have no such station. */
  or?: string;
  kinds: readonly MachineKind[];
  by: PartBy;
  /** Years after which it is due, whatever it looks like. */
  dueAfter?: number;
  /** Years from which on it is looked at more closely. */
  lookFrom?: number;
  /** What tells that its time has come. */
  sign: string;
  /** What comes of it where nobody does, or what to mind. */
  why: string;
}

/** Parts that wear, along the water line and then along the air line. */
export const PARTS: readonly Part[] = spoken([
  {
    id: 'fill-hose',
    name: 'Fill hose',
    station: 'tap',
    kinds: WASHERS,
    by: 'anybody',
    dueAfter: 5,
    sign: 'A bulge, a crack, rust at its ends, a damp joint.',
    why: 'It is under pressure day and night, and rubber ages from within: a burst floods the house. Hoses with a water stop carry a date of their own, which comes first.',
  },
  {
    id: 'inlet-mesh',
    name: 'Inlet screen',
    station: 'inlet-screen',
    kinds: WASHERS,
    by: 'anybody',
    sign: 'The mesh is torn, or scale no longer comes off it.',
    why: 'Without a whole mesh, sand reaches the valve and keeps it open.',
  },
  {
    id: 'door-gasket',
    name: 'Door gasket',
    station: 'gasket',
    kinds: FRONT_LOADERS,
    by: 'skilled',
    lookFrom: 7,
    sign: 'Drops below the door, a tear, folds that have gone hard or stay black.',
    why: 'It lets water out a little at a time, where nobody sees it: under the machine.',
  },
  {
    id: 'filter-seal',
    name: 'Pump filter with its seal',
    station: 'pump-filter',
    kinds: FRONT_LOADERS,
    by: 'anybody',
    sign: 'It drips though it is screwed in to its mark, or its thread is worn.',
    why: 'A drop a minute is a bucket in a fortnight, at the level of the floor.',
  },
  {
    id: 'drain-pump',
    name: 'Drain pump',
    station: 'pump-filter',
    or: 'pump',
    kinds: WASHERS,
    by: 'professional',
    sign: 'It hums and moves no water, though filter, hose and trap are clear.',
    why: 'First see that nothing blocks its wheel: most pumps that are replaced were only blocked.',
  },
  {
    id: 'drain-hose',
    name: 'Drain hose',
    station: 'drain-hose',
    kinds: WASHERS,
    by: 'anybody',
    lookFrom: 8,
    sign: 'Cracks in its bends, a kink that stays, drops at its clamps.',
    why: 'It carries the whole load of water in two minutes, warm and soapy.',
  },
  {
    id: 'wash-heater',
    name: 'Heater of the water',
    station: 'tub',
    kinds: WASHERS,
    by: 'professional',
    sign: 'Water stays cold, heating takes longer than ever, or the breaker falls while it heats.',
    why: 'Scale makes it run hot inside itself. Descaling in time spares it.',
  },
  {
    id: 'bearings',
    name: 'Bearings of the drum',
    station: 'tub',
    kinds: WASHERS,
    by: 'professional',
    sign: 'A roar that rises with the spin, play of the empty drum, rust-brown streaks behind it.',
    why: 'Long work: ask what it costs before anybody opens the machine.',
  },
  {
    id: 'dampers',
    name: 'Dampers',
    station: 'whole',
    kinds: FRONT_LOADERS,
    by: 'skilled',
    sign: 'It walks and bangs in the spin though it stands level and the load is spread.',
    why: 'Without them every spin wears the bearings and the hoses.',
  },
  {
    id: 'motor-brushes',
    name: 'Brushes of the motor, or its belt',
    station: 'whole',
    kinds: WASHERS,
    by: 'skilled',
    sign: 'The drum stands still or starts only at times; sparks, a squeal, a smell of rubber.',
    why: 'Many newer machines have neither: their motor turns the drum itself, and has no brushes.',
  },
  {
    id: 'screen-mesh',
    name: 'Lint screen',
    station: 'lint-screen',
    kinds: DRYERS,
    by: 'anybody',
    sign: 'A hole, a bent frame, a mesh that water stands on even after washing.',
    why: 'A hole sends lint to the heater and the duct. Never run the dryer without it.',
  },
  {
    id: 'fine-foam',
    name: 'Fine filter, its foam or cloth',
    station: 'fine-filter',
    kinds: ['heat-pump-dryer'],
    by: 'anybody',
    lookFrom: 2,
    sign: 'It crumbles, has a tear, or stays grey after washing.',
    why: 'It keeps fluff from the coil, which is far more work to clean.',
  },
  {
    id: 'drum-felt',
    name: 'Seal of the drum',
    station: 'drum-seal',
    kinds: DRYERS,
    by: 'skilled',
    sign: 'Threads or marks on clothes, lint round the door and in the cabinet.',
    why: 'Air and lint leave the way here instead of through the screen.',
  },
  {
    id: 'drum-belt',
    name: 'Belt of the drum',
    station: 'whole',
    kinds: DRYERS,
    by: 'skilled',
    lookFrom: 8,
    sign: 'The motor hums and the drum stands, or turns easily by one finger.',
    why: 'When it goes, the dryer stops at once; nothing else is harmed if it is switched off.',
  },
  {
    id: 'drum-rollers',
    name: 'Rollers and idler',
    station: 'whole',
    kinds: DRYERS,
    by: 'skilled',
    sign: 'A thump with each turn, a squeal that goes away when it is warm.',
    why: 'Worn rollers wear the belt and the seal. They are replaced together.',
  },
  {
    id: 'dryer-cutout',
    name: 'Thermal cut-out',
    station: 'whole',
    kinds: DRYERS,
    by: 'professional',
    sign: 'It turns and stays cold.',
    why: 'It went because something ran too hot, mostly for want of air: that comes first. It is never bridged.',
  },
  {
    id: 'dryer-heater',
    name: 'Heater of the air',
    station: 'whole',
    kinds: [...VENTED, 'condenser-dryer', 'washer-dryer'],
    by: 'professional',
    sign: 'It turns and stays cold, or warms only half, with the cut-out whole.',
    why: 'A way out that is half closed makes it run hot. Clear that first.',
  },
  {
    id: 'transition-duct',
    name: 'Transition duct',
    station: 'transition-hose',
    kinds: VENTED,
    by: 'anybody',
    lookFrom: 5,
    sign: 'Crushed, torn, loose, or made of plastic or foil: then at once.',
    why: 'Metal with smooth walls, as short as can be. A gas dryer’s is joined by a licensed professional.',
  },
  {
    id: 'hood-flap',
    name: 'Hood with its flap',
    station: 'hood',
    kinds: VENTED,
    by: 'anybody',
    sign: 'The flap hangs, is broken or gone; there is a mesh in it.',
    why: 'Cold, water and animals come in by it, and a mesh fills with lint.',
  },
  {
    id: 'exchanger-seal',
    name: 'Seal of the heat exchanger',
    station: 'heat-exchanger',
    kinds: ['condenser-dryer'],
    by: 'anybody',
    sign: 'A damp room, drops in front of the machine, lint beside the exchanger.',
    why: 'Damp air leaves the machine here instead of into the tank.',
  },
  {
    id: 'condensate-pump',
    name: 'Pump of the condensate',
    station: 'condensate-sump',
    kinds: CONDENSING,
    by: 'professional',
    sign: 'The tank stays empty and the display says that it is full.',
    why: 'First clean its sump: fluff stops it far more often than age does.',
  },
] satisfies Part[]);

/** The words of who puts a part in. */
export const PART_BY: Readonly<Record<PartBy, string>> = {
  anybody: 'you can do it',
  skilled: 'for somebody who has done it before',
  professional: 'for a professional',
};
