import type { HouseholdDraft, MachineDraft } from '@needlecase/core';

/* Kiln Lane House and everybody in it are made up; so are the makers. */

export const HOUSEHOLD: HouseholdDraft = {
  name: 'Kiln Lane House',
  zone: 'Europe/Vienna',
  units: 'metric',
  hardness: 285,
  school: 'steady',
  risk: 0.1,
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
    features: { energy: 'electric', ventPath: 'up', riser: 'yes', elbows: 2, room: 'unheated' },
    habits: ['pets', 'softener'],
    loadsPerWeek: 5,
  },
  'top-dryer': {
    name: 'Top-floor dryer',
    kind: 'condenser-dryer',
    maker: 'Ostrelle',
    place: 'Top floor',
    features: { condensateTo: 'tank', room: 'heated' },
    habits: [],
    loadsPerWeek: 3,
  },
  'studio-washer': {
    name: 'Studio washer',
    kind: 'top-load-washer',
    maker: 'Tarnhollow',
    place: 'Studio',
    features: { dispenser: 'cup', drainsTo: 'sink', room: 'heated' },
    habits: ['muddy-clothes'],
    loadsPerWeek: 2,
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
  /** Fouling a load; what the grades come from. */
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
  { machine: 'cellar-dryer', task: 'duct-run', every: 190, last: 228, rate: 0.0064 },
  { machine: 'cellar-dryer', task: 'lint-screen-wash', every: 22, last: 10, rate: 0.062 },
  { machine: 'top-dryer', task: 'heat-exchanger', every: 45, last: 61, rate: 0.0075 },
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
