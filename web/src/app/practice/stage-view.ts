import {
  heightOfLitres,
  isWasher,
  type Machine,
  type MachineKind,
  type PracticeCase,
  type PracticeState,
} from '@needlecase/core';

/** A part of the stage with how it is, in the order in which it is read. */
export interface StagePart {
  id: PartId;
  name: string;
  is: string;
}

export type PartId =
  | 'plug'
  | 'tap'
  | 'gas'
  | 'glass'
  | 'filter'
  | 'hose'
  | 'pipe'
  | 'screen'
  | 'exchanger'
  | 'duct'
  | 'hood'
  | 'floor';

/** Which machine stands on the stage; of a tower, the part that the trouble shows at. */
export type StageKind = 'front' | 'top' | 'vented' | 'condensing';

/** How everything on the stage is. */
export interface StageView {
  kind: StageKind;
  /** Of a tower: what it stands on, or what stands on it. */
  tower?: 'dryer above' | 'washer below';
  /** Height of the water in the drum, as a share of it; 0 where none is seen. */
  water: number;
  litres: number;
  plugged: boolean;
  tapOpen: boolean;
  gas: 'none' | 'open' | 'shut';
  pulledOut: boolean;
  flapOpen: boolean;
  filter: 'in' | 'cracked' | 'out';
  thinHose: 'clipped' | 'out' | 'open';
  drainHose: 'in' | 'bucket';
  fillHose: boolean;
  screenOut: boolean;
  ductOff: boolean;
  exchangerOpen: boolean;
  panelOff: boolean;
  /** L. */
  floor: number;
  tray: boolean;
  cool: boolean;
  parts: StagePart[];
}

const DRUM = 0.52;
/** Litres below the drum. */
const SUMP = 1;

const isWet = ({ trouble, hidden, machine }: PracticeCase): boolean => {
  if (machine.kind !== 'tower') return isWasher(machine.kind);
  // The trouble of a tower is at the one or the other.
  const air = ['look-screen', 'go-outside', 'torch-well', 'look-duct', 'warm-five-minutes'];
  const explains = trouble.explaining(hidden.reported);
  const dry = air.filter((id) => trouble.asks(id) && trouble.tellsOf(id, explains)).length;
  return dry < 2;
};

const kindOf = (kind: MachineKind, wet: boolean): StageKind => {
  if (kind === 'top-load-washer') return 'top';
  if (kind === 'tower' ? wet : isWasher(kind)) return 'front';
  return kind === 'condenser-dryer' || kind === 'heat-pump-dryer' ? 'condensing' : 'vented';
};

/** The machine of a case as it is to be drawn. */
export function stageOf(game: PracticeCase, state: PracticeState): StageView {
  return stageOfWorld(game.machine, state.world, {
    wet: isWet(game),
    floor: state.mess,
    tray: state.tray,
    measured: state.figures.some(({ what }) => what === 'tub'),
  });
}

/** What is known of a machine beside how it stands. */
export interface Beside {
  /** Of a tower: whether its washer is meant. */
  wet: boolean;
  /** L. */
  floor: number;
  tray: boolean;
  /** Its water was measured. */
  measured: boolean;
}

/** A machine as it stands, to be drawn. */
export function stageOfWorld(
  machine: Pick<Machine, 'kind' | 'features'>,
  { facts, litres }: PracticeState['world'],
  { wet, floor, tray, measured }: Beside,
): StageView {
  const kind = kindOf(machine.kind, wet);
  const { energy } = machine.features;
  const water = Math.max(0, litres - SUMP);
  const view: Omit<StageView, 'parts'> = {
    kind,
    ...(machine.kind === 'tower' ? { tower: wet ? 'dryer above' : 'washer below' } : {}),
    water: water > 0.3 ? heightOfLitres(water) / DRUM : 0,
    litres,
    plugged: facts.power === 'on',
    tapOpen: facts.tap === 'open',
    gas: kind === 'vented' && energy === 'gas' ? facts.gas : 'none',
    pulledOut: facts.place === 'out',
    flapOpen: facts.flap === 'open',
    filter: facts.filter,
    thinHose: facts.thinHose,
    drainHose: facts.drainHose,
    fillHose: facts.fillHose === 'on',
    screenOut: facts.screen === 'out',
    ductOff: facts.duct === 'off',
    exchangerOpen: facts.exchangerFlap === 'open',
    panelOff: facts.cabinet === 'off' || facts.housing === 'off',
    floor,
    tray,
    cool: facts.cool === 'yes',
  };
  return { ...view, parts: partsOf(view, measured) };
}

const FILTER_IS = { in: 'shut', cracked: 'a turn loose, drips', out: 'out' } as const;
const level = (share: number): string =>
  share === 0
    ? 'no water seen'
    : share < 0.3
      ? 'water in the lower third'
      : share < 0.55
        ? 'water to the middle'
        : 'water above the middle';

function partsOf(view: Omit<StageView, 'parts'>, measured: boolean): StagePart[] {
  const part = (id: PartId, name: string, is: string): StagePart => ({ id, name, is });
  const wet = view.kind === 'front' || view.kind === 'top';
  const plug = part('plug', 'Plug', view.plugged ? 'in' : 'out');
  const floor = part('floor', 'Floor', view.floor > 0 ? `${view.floor} L on it` : 'dry');
  if (wet) {
    const glass = measured && view.water ? `${Math.round(view.litres)} L in it` : level(view.water);
    return [
      plug,
      part('tap', 'Tap', view.tapOpen ? 'open' : 'shut'),
      part('glass', view.kind === 'top' ? 'Drum' : 'Glass', glass + (view.cool ? ', cool' : '')),
      ...(view.kind === 'front'
        ? [part('filter', 'Pump filter', filterWords(view))]
        : [part('filter', 'Pump', 'below it')]),
      part('hose', 'Drain hose', view.drainHose === 'in' ? 'in its pipe' : 'held low'),
      part('pipe', 'Standpipe', 'still'),
      floor,
    ];
  }
  return [
    plug,
    ...(view.gas === 'none' ? [] : [part('gas', 'Gas valve', view.gas)]),
    part('glass', 'Drum', view.cool ? 'cool' : 'not felt yet'),
    part('screen', 'Lint screen', view.screenOut ? 'out' : 'in'),
    ...(view.kind === 'vented'
      ? [
          part('duct', 'Duct', view.ductOff ? 'hose off' : 'hose on'),
          part('hood', 'Hood', 'outdoors'),
        ]
      : [part('exchanger', 'Heat exchanger', view.exchangerOpen ? 'its flap open' : 'shut')]),
    floor,
  ];
}

function filterWords({ flapOpen, filter, thinHose, tray }: Omit<StageView, 'parts'>): string {
  if (!flapOpen) return 'behind its flap';
  const hose =
    thinHose === 'open' ? ', thin hose open' : thinHose === 'out' ? ', thin hose out' : '';
  return `${filter === 'in' ? 'flap open' : FILTER_IS[filter]}${hose}${tray ? ', tray below' : ''}`;
}

const PREPARES_AT: Readonly<Record<string, PartId>> = {
  unplugged: 'plug',
  'water-off': 'tap',
  'gas-off': 'gas',
  cold: 'glass',
  'flap-open': 'filter',
  'let-out': 'filter',
};
const STATION_AT: Readonly<Record<string, PartId>> = {
  'pump-filter': 'filter',
  pump: 'filter',
  'drain-hose': 'hose',
  standpipe: 'pipe',
  tap: 'tap',
  'inlet-screen': 'tap',
  gasket: 'glass',
  tub: 'glass',
  'lint-screen': 'screen',
  'screen-well': 'screen',
  'transition-hose': 'duct',
  'duct-run': 'duct',
  hood: 'hood',
  'heat-exchanger': 'exchanger',
};

/** The part that something is done at, to be ringed for a moment. */
export function partAt(act: string, station: string | undefined): PartId | undefined {
  const [kind, id = ''] = act.split(':');
  if (kind === 'prep') return PREPARES_AT[id];
  return station === undefined ? undefined : STATION_AT[station];
}
