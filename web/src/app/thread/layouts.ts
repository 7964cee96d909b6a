import type { MachineKind, StationState } from '@needlecase/core';
import type { Point } from './geometry';

/** Where a station's name stands beside it. */
export type LabelSide = 'left' | 'right' | 'above' | 'below';

export interface Placed extends Point {
  state: StationState;
  side: LabelSide;
}

/** A drawing worked out: its size, its stations, and what is stitched behind them. */
export interface Layout {
  width: number;
  height: number;
  radius: number;
  placed: Placed[];
  figure: Figure;
}

/** Outlines behind the thread: `stitched` for the machine, `wall` for house walls and ground. */
export interface Figure {
  stitched: string[];
  wall: string[];
  words: (Point & { text: string })[];
}

const NO_FIGURE: Figure = { stitched: [], wall: [], words: [] };

/** One row, evenly spaced; the thread sags a little between the stations. */
export function strip(stations: readonly StationState[], width: number): Layout {
  const height = 60;
  const margin = 22;
  const gap = stations.length > 1 ? (width - 2 * margin) / (stations.length - 1) : 0;
  return {
    width,
    height,
    radius: Math.min(17, Math.max(10, gap * 0.36)),
    placed: stations.map((state, i) => ({
      state,
      x: margin + i * gap,
      y: height / 2 + (i % 2 ? 3 : -3),
      side: 'below',
    })),
    figure: NO_FIGURE,
  };
}

/** One column with names beside it, for phones. */
export function column(stations: readonly StationState[], width: number): Layout {
  const step = 68;
  return {
    width,
    height: stations.length * step + 12,
    radius: 23,
    placed: stations.map((state, i) => ({
      state,
      x: 44 + (i % 2 ? 7 : -7),
      y: 40 + i * step,
      side: 'right',
    })),
    figure: NO_FIGURE,
  };
}

type Place = [x: number, y: number, side: LabelSide];

interface Picture {
  places: Record<string, Place>;
  figure: Figure;
  /** Where it is not the usual. */
  height?: number;
}

/** Floor and wall of the room the machine stands in. */
const FLOOR = 'M20,520H980';

const WASHER_BODY =
  'M300,96H676Q690,96 690,110V496Q690,510 676,510H300Q286,510 286,496V110Q286,96 300,96Z';
const DRYER_BODY =
  'M210,96H586Q600,96 600,110V496Q600,510 586,510H210Q196,510 196,496V110Q196,96 210,96Z';

const ring = (x: number, y: number, r: number): string =>
  `M${x - r},${y}a${r},${r} 0 1 0 ${2 * r},0a${r},${r} 0 1 0 ${-2 * r},0`;

const WASHER_PIPES = ['M876,60V330Q876,360 902,360T928,390V520', 'M60,40V190'];

const WATER_MAKING_DRYER: Picture = {
  places: {
    'room-air': [96, 300, 'above'],
    'drum-seal': [286, 250, 'above'],
    sensor: [366, 330, 'below'],
    'lint-screen': [470, 218, 'right'],
    'fine-filter': [528, 330, 'right'],
    blower: [470, 434, 'right'],
    'heat-exchanger': [300, 440, 'above'],
    'condensate-sump': [740, 452, 'below'],
    tank: [760, 146, 'right'],
    whole: [130, 452, 'above'],
  },
  figure: {
    stitched: [
      DRYER_BODY,
      'M196,168H600',
      ring(372, 300, 112),
      'M236,404H372V484H236Z',
      'M690,116H860V186H690Z',
    ],
    wall: [FLOOR],
    words: [],
  },
};

const FRONT_LOADER: Picture = {
  places: {
    tap: [70, 130, 'below'],
    'inlet-screen': [212, 74, 'above'],
    dispenser: [372, 142, 'right'],
    gasket: [388, 300, 'left'],
    tub: [500, 352, 'right'],
    'pump-filter': [596, 458, 'left'],
    pump: [596, 458, 'left'],
    'drain-hose': [744, 330, 'right'],
    standpipe: [876, 110, 'above'],
    'house-drain': [926, 466, 'left'],
    whole: [350, 458, 'left'],
  },
  figure: {
    stitched: [
      WASHER_BODY,
      'M286,180H690',
      ring(488, 318, 118),
      ring(488, 318, 92),
      'M548,426H668V496H548Z',
    ],
    wall: [FLOOR, ...WASHER_PIPES],
    words: [],
  },
};

const VENTED_DRYER: Picture = {
  places: {
    'room-air': [84, 236, 'above'],
    cabinet: [262, 214, 'above'],
    'drum-seal': [300, 306, 'left'],
    sensor: [396, 366, 'left'],
    'lint-screen': [440, 150, 'right'],
    'screen-well': [504, 284, 'right'],
    blower: [514, 446, 'left'],
    'transition-hose': [690, 430, 'below'],
    'duct-run': [702, 222, 'right'],
    hood: [872, 128, 'above'],
    whole: [262, 466, 'left'],
  },
  figure: {
    stitched: [DRYER_BODY, 'M196,168H600', ring(340, 320, 118), 'M680,446V108H838M724,400V148H838'],
    wall: [FLOOR, 'M806,20V92M806,164V520', 'M830,520Q880,506 980,512'],
    words: [{ x: 892, y: 300, text: 'outdoors' }],
  },
};

/** A dryer's body on a washer's: one housing, the washer's part drawn below. */
const TOWER: Picture = {
  height: 964,
  places: {
    ...VENTED_DRYER.places,
    tap: [84, 700, 'below'],
    'inlet-screen': [130, 566, 'above'],
    dispenser: [282, 566, 'right'],
    gasket: [298, 724, 'left'],
    tub: [410, 776, 'right'],
    'pump-filter': [506, 882, 'left'],
    pump: [506, 882, 'left'],
    'drain-hose': [664, 760, 'right'],
    standpipe: [860, 580, 'above'],
    'house-drain': [900, 890, 'left'],
    whole: [262, 892, 'left'],
  },
  figure: {
    stitched: [
      'M210,96H586Q600,96 600,110V920Q600,934 586,934H210Q196,934 196,920V110Q196,96 210,96Z',
      'M196,168H600M196,510H600M196,604H600',
      ...VENTED_DRYER.figure.stitched.slice(2),
      ring(398, 742, 118),
      ring(398, 742, 92),
      'M458,850H578V920H458Z',
    ],
    wall: [
      'M20,944H980',
      'M806,20V92M806,164V440',
      'M830,440Q880,426 980,432',
      'M860,530V754Q860,784 886,784T912,814V944',
      'M84,620V760',
    ],
    words: VENTED_DRYER.figure.words,
  },
};

/** Where each station sits on the machine, roughly where it is on the real one. */
const PICTURES: Record<MachineKind, Picture> = {
  'front-load-washer': FRONT_LOADER,
  'top-load-washer': {
    places: {
      tap: [70, 130, 'below'],
      'inlet-screen': [212, 74, 'above'],
      dispenser: [470, 158, 'right'],
      tub: [470, 322, 'right'],
      pump: [590, 462, 'left'],
      'drain-hose': [744, 330, 'right'],
      standpipe: [876, 110, 'above'],
      'house-drain': [926, 466, 'left'],
      whole: [350, 458, 'left'],
    },
    figure: {
      stitched: [
        WASHER_BODY,
        'M286,132H690',
        'M352,196V420Q352,440 372,440H566Q586,440 586,420V196',
        'M470,206V400',
      ],
      wall: [FLOOR, ...WASHER_PIPES],
      words: [],
    },
  },
  'vented-dryer': VENTED_DRYER,
  'condenser-dryer': WATER_MAKING_DRYER,
  'heat-pump-dryer': WATER_MAKING_DRYER,
  'washer-dryer': {
    ...FRONT_LOADER,
    places: { ...FRONT_LOADER.places, 'drying-channel': [560, 226, 'right'] },
  },
  tower: TOWER,
};

/** The whole picture: the machine in stitched outline, the line running through it. */
export function picture(kind: MachineKind, stations: readonly StationState[]): Layout {
  const { places, figure, height = 540 } = PICTURES[kind];
  return {
    width: 1000,
    height,
    radius: 33,
    placed: stations.map((state) => {
      const [x, y, side] = places[state.id] ?? [500, 40, 'right'];
      return { state, x, y, side };
    }),
    figure,
  };
}

/** Whether a picture knows a place for a station. */
export const hasPlace = (kind: MachineKind, station: string): boolean =>
  station in PICTURES[kind].places;
