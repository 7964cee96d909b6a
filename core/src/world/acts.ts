import type { Features } from '../model/schemas.js';
import type { MachineKind } from '../model/vocabulary.js';
import type { Change, Fact, Needs } from './facts.js';

/*
 * What a step is to the machine: where hands and eyes are, what must be so, what it changes, what it
 * starts, what it lets wait, and what it proves. It stands as data beside the step.
 */

/** Where the hands are. `apart`: at the sink, at the table, at what was taken out. */
export type Zone =
  | 'apart'
  | 'outside'
  | 'drum'
  | 'drawer'
  | 'filter'
  | 'behind'
  | 'pipe'
  | 'valve'
  | 'slot'
  | 'well'
  | 'exchanger'
  | 'inside'
  | 'duct'
  | 'hood';

/** A law of the machine's world: what is broken when a need is not met. */
export type Law =
  | 'live parts'
  | 'hot parts'
  | 'out of reach'
  | 'flood'
  | 'products meet'
  | 'gas'
  | 'sign not visible'
  | 'leak look before heat'
  | 'not ready to run'
  | 'soaking touched'
  | 'put back wet'
  | 'put back unrinsed'
  | 'noted too late'
  | 'wrong order'
  | 'left undone'
  | 'left unproved'
  | 'too heavy alone';

/** What a machine is made to do. */
export type Programme = 'rinse' | 'hot' | 'air' | 'dry';

/** What may leak, let air through or smell, and is looked at. */
export type Sign = 'filter' | 'cap' | 'inlet' | 'drain' | 'duct' | 'gas';

/** A thing that can be wet or lie in something: nobody touches it meanwhile. */
export const PARTS = [
  'filter',
  'gasket',
  'inserts',
  'cup',
  'screen',
  'fineFilter',
  'exchanger',
  'inletScreen',
  'strips',
] as const;
export type Part = (typeof PARTS)[number];

/** Its schema, for whoever adds a step, is in `acts-schema.ts`. */
export interface Acts {
  at: Zone;
  needs?: Needs;
  does?: Change;
  /** Waits until it is cool: the water, the drum, the metal. */
  cools?: true;
  runs?: Programme;
  /** What is looked for. */
  proves?: readonly Sign[];
  /** Lets what water there is out, into trays or a bucket, as much at a time as can be carried. */
  drains?: true;
  /** Asks whether the machine is full, and leads elsewhere where it is. */
  stopsIfFull?: true;
  /** Lets something soak, or dry, for so many minutes. */
  soaks?: { part: Part; minutes: number };
  dries?: { part: Part; minutes: number };
  /** Works on it; what soaks or dries is waited for only where the step says so. */
  touches?: Part;
  waits?: true;
  /** Wets it, so that it has to dry before it goes back. */
  wets?: Part;
  /** Leaves on it what has to come off before it goes back; what soaks does so too. */
  coats?: Part;
  /** Takes off what is on what it touches. */
  clears?: true;
  /** The cleaning itself: what was found is noted before. */
  cleans?: true;
  /** Two people. */
  people?: 2;
}

/** What the laws need to know of how a machine is built. */
export interface Body {
  kind: MachineKind;
  features: Features;
}

/** A fact that must have one of some values, and the law that is broken where it has not. */
export interface Demand {
  fact: Fact;
  values: readonly string[];
  law: Law;
}

interface ZoneNeeds {
  /** Parts that move, or carry mains. */
  live?: true;
  /** Metal or water that may be hot. */
  hot?: true;
  /** What has to be open to get there. */
  reach?: (body: Body) => Needs;
}

const behind = (): Needs => ({ place: ['out'] });
const FROM_BEHIND = ['behind'];

/** Common practice: where a hand needs the plug out, the metal cool, and something out of its way. */
export const ZONES: Record<Zone, ZoneNeeds> = {
  apart: {},
  outside: {},
  drum: {},
  drawer: {},
  filter: {
    live: true,
    hot: true,
    reach: ({ features }) => ({
      flap: ['open'],
      ...(FROM_BEHIND.includes(features.filterAccess ?? '') ? behind() : {}),
    }),
  },
  behind: { reach: behind },
  pipe: {},
  valve: {},
  slot: {},
  well: { live: true, hot: true, reach: () => ({ screen: ['out'] }) },
  exchanger: { live: true, hot: true, reach: () => ({ exchangerFlap: ['open'] }) },
  inside: { live: true, hot: true },
  duct: { reach: () => ({ ...behind(), duct: ['off'] }) },
  hood: { reach: () => ({ stand: ['safe'] }) },
};

/** What must be in its place before water is let in. */
const WATERTIGHT: Needs = {
  filter: ['in'],
  thinHose: ['clipped', 'out'],
  drainHose: ['in'],
  trap: ['on'],
  fillHose: ['on'],
};
const WASHES: Needs = {
  power: ['on'],
  tap: ['open'],
  inletScreen: ['in'],
  drawer: ['in'],
  inserts: ['in'],
  cloth: ['none'],
  cup: ['in'],
};
const BLOWS: Needs = {
  power: ['on'],
  screen: ['in'],
  fineFilter: ['in'],
  exchanger: ['in'],
  exchangerFlap: ['shut'],
  housing: ['on'],
  cabinet: ['on'],
  tank: ['in'],
};
const LOOKED_AT: Needs = {
  filterTight: ['yes'],
  capTight: ['yes'],
  inletTight: ['yes'],
  drainTight: ['yes'],
};

/** What a programme needs, by the law that is broken without it, and the minutes and heat it takes. */
export const RUNS: Record<
  Programme,
  { minutes: number; celsius: number; needs: Partial<Record<Law, Needs>>; does: Change }
> = {
  rinse: {
    minutes: 25,
    celsius: 20,
    needs: { flood: WATERTIGHT, 'not ready to run': WASHES },
    does: { water: 'run' },
  },
  hot: {
    minutes: 90,
    celsius: 80,
    needs: {
      flood: WATERTIGHT,
      'not ready to run': { ...WASHES, place: ['home'], flap: ['shut'] },
      'leak look before heat': LOOKED_AT,
    },
    does: { water: 'run', cool: 'no' },
  },
  air: {
    minutes: 5,
    celsius: 25,
    needs: { 'not ready to run': BLOWS, gas: { duct: ['on'] } },
    does: { air: 'run' },
  },
  dry: {
    minutes: 30,
    celsius: 65,
    needs: {
      'not ready to run': { ...BLOWS, place: ['home'] },
      gas: { duct: ['on'], gas: ['open'], gasTight: ['yes'], ductTight: ['yes'] },
    },
    does: { air: 'run', cool: 'no' },
  },
};

/** What has to be so for a sign to be seen, and what is then known. */
export const SIGNS: Record<Sign, { needs: (body: Body) => Needs; does: Change }> = {
  filter: {
    needs: (body) => ({
      filter: ['in'],
      flap: ['open'],
      water: ['poured', 'run'],
      ...(FROM_BEHIND.includes(body.features.filterAccess ?? '') ? behind() : {}),
    }),
    does: { filterTight: 'yes' },
  },
  cap: {
    needs: () => ({ thinHose: ['clipped'], flap: ['open'], water: ['poured', 'run'] }),
    does: { capTight: 'yes' },
  },
  inlet: {
    needs: () => ({ fillHose: ['on'], tap: ['open'], ...behind() }),
    does: { inletTight: 'yes' },
  },
  drain: {
    needs: () => ({ drainHose: ['in'], trap: ['on'], water: ['run'] }),
    does: { drainTight: 'yes' },
  },
  duct: {
    needs: () => ({ duct: ['on'], air: ['run'], ...behind() }),
    does: { ductTight: 'yes' },
  },
  gas: {
    needs: () => ({ gas: ['open'], place: ['home'], duct: ['on'] }),
    does: { gasTight: 'yes' },
  },
};

/** What has to be so before a step, by the law that asks for it. */
export function demandsOf(acts: Acts, body: Body): Demand[] {
  const zone = ZONES[acts.at];
  const run = acts.runs && RUNS[acts.runs];
  const own = effectsOf(acts);
  const signs = (acts.proves ?? []).flatMap((sign) =>
    demands('sign not visible', SIGNS[sign].needs(body)),
  );
  return [
    ...(zone.live && !run && !acts.proves
      ? [{ fact: 'power', values: ['off'], law: 'live parts' } as const]
      : []),
    ...(zone.hot && !run && !acts.proves
      ? [{ fact: 'cool', values: ['yes'], law: 'hot parts' } as const]
      : []),
    ...demands('out of reach', zone.reach?.(body)),
    ...Object.entries(run?.needs ?? {}).flatMap(([law, needs]) => demands(law as Law, needs)),
    // What the step itself makes so is there to be seen.
    ...signs.filter(({ fact, values }) => !values.includes(own[fact] ?? '')),
    ...demands('wrong order', acts.needs),
  ];
}

const demands = (law: Law, needs: Needs = {}): Demand[] =>
  Object.entries(needs).map(([fact, values]) => ({
    fact: fact as Fact,
    values: values,
    law,
  }));

/** What is so after a step. */
export const effectsOf = ({ runs, proves = [], cools, does }: Acts): Change => ({
  ...(cools ? { cool: 'yes' as const } : {}),
  ...(runs ? RUNS[runs].does : {}),
  ...does,
  ...proves.reduce<Change>((known, sign) => ({ ...known, ...SIGNS[sign].does }), {}),
});
