import type { Stage } from '../trouble/data/stages.js';
import type { Acts } from '../world/acts.js';
import type { Body } from '../world/acts.js';
import { isWasher } from '../model/vocabulary.js';

/*
 * What looks and repairs are to the machine, so that its laws can tell what comes of a slip: what each opens, where the
 * hands are then, and how it is closed again.
 */

/** A way in and out again. */
interface Way {
  open: readonly Acts[];
  close: readonly Acts[];
}

const OUT: Way = {
  open: [{ at: 'outside', needs: { power: ['off'] }, does: { place: 'out' } }],
  close: [{ at: 'outside', does: { place: 'home' } }],
};
const FILTER: Way = {
  open: [
    { at: 'outside', does: { flap: 'open' } },
    { at: 'filter', does: { filter: 'out', filterTight: 'no' } },
  ],
  close: [
    { at: 'filter', does: { filter: 'in' } },
    { at: 'outside', does: { flap: 'shut' } },
  ],
};

/** @param gas whether it burns gas, or nobody knows */
const stageWays = (gas: boolean): Record<Stage, Way> => ({
  'filter-open': FILTER,
  'pulled-out': OUT,
  'hose-off': {
    open: [{ at: 'pipe', does: { drainHose: 'bucket', drainTight: 'no' } }],
    close: [{ at: 'pipe', does: { drainHose: 'in' } }],
  },
  'fill-hose-off': {
    open: [{ at: 'behind', does: { fillHose: 'off', inletTight: 'no' } }],
    close: [{ at: 'behind', does: { fillHose: 'on' } }],
  },
  'duct-off': {
    open: [
      {
        at: 'behind',
        needs: { power: ['off'], ...(gas ? { gas: ['shut'] } : {}) },
        does: { duct: 'off', ductTight: 'no' },
      },
    ],
    close: [{ at: 'behind', does: { duct: 'on' } }],
  },
  outside: { open: [{ at: 'outside', does: { stand: 'safe' } }], close: [] },
  'rear-off': {
    open: [{ at: 'behind', does: { cabinet: 'off' } }, { at: 'inside' }],
    close: [{ at: 'behind', does: { cabinet: 'on' } }],
  },
  'blower-open': {
    open: [{ at: 'outside', does: { housing: 'off' } }, { at: 'inside' }],
    close: [{ at: 'outside', does: { housing: 'on' } }],
  },
  'exchanger-open': {
    open: [{ at: 'outside', does: { exchangerFlap: 'open' } }, { at: 'exchanger' }],
    close: [{ at: 'outside', does: { exchangerFlap: 'shut' } }],
  },
});

/** Looks at a machine that runs. */
const RUNNING: readonly string[] = [
  ...['into-bucket', 'look-down-pipe', 'all-clear-still', 'drips-at-flap', 'watch-rinse'],
  ...['foam-empty', 'foam-at-end', 'paper-at-joint', 'redistribute', 'warm-five-minutes'],
  ...['cool-an-hour', 'go-outside', 'lamp-reset', 'plug-out-five'],
];
/** Hands in the drum or at what turns with it: only with the plug out. */
const PLUG_OUT: readonly string[] = [
  ...['turn-scrape', 'rock-drum', 'drum-no-drag', 'turn-and-listen', 'hose-low', 'meter-strips'],
  ...['pour-stays'],
];
/** Looks that need the water or the metal cool, though they open nothing. */
const COOL_FIRST: readonly string[] = ['hose-low', 'into-bucket', 'pour-stays'];

const EXTRA: Readonly<Record<string, readonly Acts[]>> = {
  'smell-at-filter': [{ at: 'outside', does: { flap: 'open' } }, { at: 'filter' }],
  'torch-well': [{ at: 'outside', does: { screen: 'out' } }, { at: 'well' }],
  'valve-look': [{ at: 'valve' }],
};
const EXTRA_CLOSE: Readonly<Record<string, readonly Acts[]>> = {
  'smell-at-filter': [{ at: 'outside', does: { flap: 'shut' } }],
  'torch-well': [{ at: 'outside', does: { screen: 'in' } }],
};

/** A deed in the machine's world: on the way in, and on the way out. */
export interface Deed {
  open: readonly Acts[];
  close: readonly Acts[];
}

const isGas = ({ features }: Body): boolean =>
  features.energy === 'gas' || features.energy === 'unknown';

/** What comes through its stages, the outermost first. */
function through(stages: readonly Stage[], body: Body): Deed {
  const all = stageWays(isGas(body));
  const behind = stages.includes('filter-open') && body.features.filterAccess === 'behind';
  const ways = [...(behind ? [OUT] : []), ...stages.map((stage) => all[stage])];
  return {
    open: ways.flatMap(({ open }) => open),
    close: [...ways].reverse().flatMap(({ close }) => close),
  };
}

/** What a look is to the machine. @param id of the check */
export function deedOfLook(id: string, stages: readonly Stage[], body: Body): Deed {
  const { open, close } = through(stages, body);
  const first: Acts[] = [
    ...(RUNNING.includes(id) ? [{ at: 'outside', needs: { power: ['on'] } } as const] : []),
    ...(PLUG_OUT.includes(id) ? [{ at: 'outside', needs: { power: ['off'] } } as const] : []),
    ...(COOL_FIRST.includes(id) ? [{ at: 'outside', needs: { cool: ['yes'] } } as const] : []),
  ];
  // A top loader's pump is reached from below, without a filter.
  const inner =
    id === 'turn-impeller' && body.kind === 'top-load-washer' ? PUMP_BELOW : { open, close };
  return {
    open: [...first, ...inner.open, ...(EXTRA[id] ?? [])],
    close: [...(EXTRA_CLOSE[id] ?? []), ...inner.close],
  };
}
const PUMP_BELOW: Deed = {
  open: [...OUT.open, { at: 'inside', does: { filter: 'out', filterTight: 'no' } }],
  close: [{ at: 'inside', does: { filter: 'in' } }, ...OUT.close],
};

/** What a repair is to the machine. */
export const deedOfFix = (stages: readonly Stage[], body: Body): Deed => through(stages, body);

/** Letting the water out: by the thin hose, by the filter a turn loose, or scooped from above. */
export function deedOfDraining(body: Body): Deed & { by: 'hose' | 'filter' | 'scoop' } {
  const { filterAccess = 'unknown', drainDownHose } = body.features;
  const front = isWasher(body.kind) && body.kind !== 'top-load-washer' && filterAccess !== 'behind';
  if (!front) {
    const scoop: Acts = { at: 'outside', needs: { cool: ['yes'] }, drains: true };
    return { by: 'scoop', open: [scoop], close: [] };
  }
  const flap: Acts = { at: 'outside', does: { flap: 'open' } };
  if (drainDownHose === 'yes') {
    return {
      by: 'hose',
      open: [
        flap,
        { at: 'filter', does: { thinHose: 'out' } },
        { at: 'filter', drains: true, does: { thinHose: 'open', capTight: 'no' } },
      ],
      close: [{ at: 'filter', does: { thinHose: 'clipped' } }],
    };
  }
  return {
    by: 'filter',
    open: [flap, { at: 'filter', drains: true, does: { filter: 'cracked', filterTight: 'no' } }],
    close: [{ at: 'filter', does: { filter: 'in' } }],
  };
}
