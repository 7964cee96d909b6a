import type { HouseholdDraft, MachineDraft, SupplyDraft } from '@needlecase/core';

/* Kiln Lane House and everybody in it are made up; so are the makers. */

export const HOUSEHOLD: HouseholdDraft = {
  name: 'Kiln Lane House',
  zone: 'Europe/Vienna',
  units: 'metric',
  hardness: 285,
  school: 'steady',
  risk: 0.1,
  currency: 'EUR',
  energyPrice: 0.31,
  places: {
    stopValve: 'Wall left of the washer; turn it right',
    breaker: 'Grey box under the stairs, 7 and 8',
  },
  visitMinutes: 90,
  plan: {
    weekdays: [6, 7],
    people: [{ name: 'Pell', weekdays: [6] }, { name: 'Odo' }, { name: 'Wren' }],
  },
  detergents: [
    {
      name: 'Liquid for colours',
      unit: 'ml',
      soft: 50,
      medium: 70,
      hard: 90,
      labelLoad: 4.5,
      density: 1.05,
      pack: 1500,
      price: 6.49,
    },
    {
      name: 'Powder for whites',
      unit: 'g',
      soft: 65,
      medium: 95,
      hard: 125,
      labelLoad: 4.5,
      density: 0.65,
      actives: ['peroxide'],
      pack: 2600,
      price: 8.9,
    },
  ],
};

export type DemoMachine = 'cellar-washer' | 'cellar-dryer' | 'top-dryer' | 'studio-washer';

export const MACHINES: Record<DemoMachine, MachineDraft> = {
  'cellar-washer': {
    name: 'Cellar washer',
    kind: 'front-load-washer',
    maker: 'Fennowick',
    place: 'Cellar',
    features: {
      filterAccess: 'front-right',
      drainDownHose: 'yes',
      dispenser: 'drawer',
      drainsTo: 'standpipe',
      room: 'unheated',
    },
    habits: ['pets'],
    loadsPerWeek: 6,
  },
  'cellar-dryer': {
    name: 'Cellar dryer',
    kind: 'vented-dryer',
    maker: 'Tarnhollow',
    place: 'Cellar',
    features: {
      energy: 'electric',
      ventPath: 'up',
      riser: 'yes',
      elbows: 2,
      heater: 2000,
      screenWell: 'yes',
      blowerAccess: 'yes',
      sensor: 'yes',
      room: 'unheated',
    },
    habits: ['pets', 'softener'],
    loadsPerWeek: 5,
  },
  'top-dryer': {
    name: 'Top-floor dryer',
    kind: 'condenser-dryer',
    maker: 'Ostrelle',
    place: 'Top floor',
    features: { condensateTo: 'tank', sensor: 'yes', room: 'heated' },
    habits: [],
    loadsPerWeek: 3,
    rules: {
      'fine-filter': { own: { every: 12, unit: 'loads', source: 'Manual, page 31' } },
    },
  },
  'studio-washer': {
    name: 'Studio washer',
    kind: 'top-load-washer',
    maker: 'Tarnhollow',
    place: 'Studio',
    features: { dispenser: 'cup', drainsTo: 'sink', room: 'heated' },
    habits: ['muddy-clothes'],
    loadsPerWeek: 2,
    ownTasks: [
      {
        id: 'own-clay-trap',
        name: 'Empty the clay trap',
        station: 'standpipe',
        every: 20,
        unit: 'loads',
        minutes: 15,
        unplugged: false,
        reason: 'Clay settles below the sink and sets like stone.',
        steps: [
          'Put the bucket under the trap and undo its lid.',
          'Scoop the clay into the bucket. None of it goes down the drain.',
          'Wipe the ring, and screw the lid on by hand.',
        ],
      },
    ],
  },
};

/** One task's two years: how often it was really done, and how fast the station really fouls. */
export interface DemoCare {
  machine: DemoMachine;
  task: string;
  /** Days between two times, in the mean. */
  every: number;
  /** Days ago of the last time. */
  last: number;
  /** Fouling a load, or a day where days drive it; what the grades come from. */
  rate: number;
  /** Days ago between which nobody did it. */
  neglected?: { from: number; to: number };
}

export const CARE: DemoCare[] = [
  {
    machine: 'cellar-washer',
    task: 'pump-filter',
    every: 58,
    last: 53,
    rate: 0.0135,
    neglected: { from: 560, to: 352 },
  },
  { machine: 'cellar-washer', task: 'gasket-folds', every: 19, last: 13, rate: 0.044 },
  { machine: 'cellar-washer', task: 'dispenser', every: 33, last: 29, rate: 0.0125 },
  { machine: 'cellar-washer', task: 'drain-stale', every: 26, last: 12, rate: 0.016 },
  { machine: 'cellar-washer', task: 'dispenser-jets', every: 95, last: 40, rate: 0.004 },
  { machine: 'cellar-washer', task: 'drum-clean', every: 40, last: 25, rate: 0.012 },
  { machine: 'cellar-washer', task: 'descale', every: 70, last: 38, rate: 0.008 },
  { machine: 'cellar-washer', task: 'inlet-screen', every: 100, last: 48, rate: 0.003 },
  { machine: 'cellar-washer', task: 'fill-hose', every: 190, last: 120, rate: 0.0008 },
  { machine: 'cellar-washer', task: 'drain-hose', every: 360, last: 300, rate: 0.0018 },
  { machine: 'cellar-washer', task: 'level', every: 350, last: 200, rate: 0.001 },
  { machine: 'cellar-dryer', task: 'screen-well', every: 35, last: 19, rate: 0.02 },
  { machine: 'cellar-dryer', task: 'drum-seal', every: 40, last: 16, rate: 0.01 },
  { machine: 'cellar-dryer', task: 'moisture-sensor', every: 50, last: 27, rate: 0.012 },
  { machine: 'cellar-dryer', task: 'blower-wheel', every: 140, last: 88, rate: 0.003 },
  { machine: 'cellar-dryer', task: 'cabinet', every: 380, last: 190, rate: 0.0012 },
  { machine: 'cellar-dryer', task: 'transition-hose', every: 100, last: 42, rate: 0.003 },
  { machine: 'cellar-dryer', task: 'hood', every: 80, last: 34, rate: 0.006 },
  { machine: 'cellar-dryer', task: 'belt-rollers', every: 370, last: 250, rate: 0.0005 },
  { machine: 'cellar-dryer', task: 'duct-run', every: 190, last: 228, rate: 0.0064 },
  { machine: 'cellar-dryer', task: 'lint-screen-wash', every: 22, last: 10, rate: 0.09 },
  { machine: 'top-dryer', task: 'heat-exchanger', every: 45, last: 61, rate: 0.0075 },
  { machine: 'top-dryer', task: 'fine-filter', every: 24, last: 11, rate: 0.012 },
  { machine: 'top-dryer', task: 'drum-seal', every: 60, last: 44, rate: 0.008 },
  { machine: 'top-dryer', task: 'moisture-sensor', every: 120, last: 58, rate: 0.004 },
  { machine: 'top-dryer', task: 'condensate-sump', every: 330, last: 150, rate: 0.002 },
  { machine: 'studio-washer', task: 'drum-clean', every: 80, last: 41, rate: 0.02 },
  { machine: 'studio-washer', task: 'inlet-screen', every: 130, last: 60, rate: 0.012 },
  { machine: 'studio-washer', task: 'own-clay-trap', every: 75, last: 60, rate: 0.03 },
  { machine: 'top-dryer', task: 'lint-screen-wash', every: 70, last: 31, rate: 0.012 },
];

/** What turned up in the pump filter, by the way. */
export const FINDS = [
  'hair',
  'hair tie',
  'coin',
  'button',
  'hair grip',
  'clay crumbs',
  'dog fluff',
];

export const PEOPLE = ['Wren', 'Odo', 'Pell'];

/** What stands on the shelf: what was there at the last count, so many days ago, and since bought. */
export const SHELF: (SupplyDraft & { counted: number; daysAgo: number })[] = [
  {
    item: 'vinegar',
    name: 'Vinegar, the big bottle',
    unit: 'ml',
    pack: 1000,
    price: 1.2,
    counted: 700,
    daysAgo: 70,
  },
  {
    item: 'citric-acid',
    name: 'Citric acid',
    unit: 'g',
    pack: 500,
    price: 4.5,
    counted: 250,
    daysAgo: 90,
  },
  {
    item: 'dish-soap',
    name: 'Dish soap',
    unit: 'ml',
    pack: 500,
    price: 1.6,
    counted: 420,
    daysAgo: 60,
  },
  {
    item: 'mould-remover',
    name: 'Mould remover',
    unit: 'ml',
    pack: 500,
    price: 3.9,
    counted: 300,
    daysAgo: 60,
  },
  {
    item: 'alcohol',
    name: 'Rubbing alcohol',
    unit: 'ml',
    pack: 250,
    price: 3.2,
    counted: 200,
    daysAgo: 90,
  },
  {
    item: 'foil-tape',
    name: 'Metal foil tape',
    unit: 'pieces',
    pack: 1,
    price: 6.5,
    counted: 0.1,
    daysAgo: 200,
  },
  {
    item: 'sealing-washer',
    name: 'Hose washers',
    unit: 'pieces',
    pack: 4,
    price: 2.4,
    counted: 4,
    daysAgo: 120,
  },
];
