import { advised } from './bots.js';
import { deedsOf, outcomeNow } from './actions.js';
import type { PracticeCase } from './case.js';
import { unproved } from './game.js';
import type { PracticeState } from './state.js';
import { strayFacts, HOME } from '../world/facts.js';
import { SUMP } from '../world/water.js';

/** What a guided case says to do next, and why. */
export interface Guidance {
  /** Id of the action. */
  act: string;
  why: string;
}

const WHY: Readonly<Record<string, string>> = {
  'measure:tub': 'Water stands behind the glass. How much it is tells how to let it out.',
  'prep:unplugged': 'Your hands are going to where a pump can start.',
  'prep:cold': 'Water from a hot cycle scalds, and the double glass hides how hot it is.',
  'prep:water-off': 'Shut first, no water can follow what you let out.',
  'prep:flap-open': 'A litre or so always comes: tray and towels first.',
  'prep:let-out': 'What stands above the filter runs out of it. Let out by trays, it does not.',
  'prove:try':
    'It is mended when it runs as it should, and not before. The flap is open: a drip would show.',
  'prove:ready': 'Whoever comes next finds it as it is used.',
  'end:done': 'It runs, and all is back. That was it.',
};

/** The next thing to do in a guided case: what a practised hand does, with what has to be so before it. */
export function guideOf(game: PracticeCase, state: PracticeState): Guidance | undefined {
  if (state.end) return undefined;
  const says = (act: string): Guidance => ({
    act,
    why: WHY[act] ?? 'What you were told makes this the likeliest, and you can do it yourself.',
  });
  const { facts, litres } = state.world;
  if (state.proved) return says(strayFacts(facts).length > 0 ? 'prove:ready' : 'end:done');
  if (unproved(state)) {
    if (facts.flap === 'shut') return says('prep:flap-open');
    if (facts.power === 'off')
      return { act: 'prep:unplugged', why: 'To see whether it is gone, it has to run.' };
    if (facts.tap === 'shut') return { act: 'prep:water-off', why: 'It needs water again.' };
    return says('prove:try');
  }
  if (litres > SUMP && !state.figures.some(({ what }) => what === 'tub'))
    return says('measure:tub');
  if (litres > SUMP) {
    if (facts.power !== 'off') return says('prep:unplugged');
    if (facts.cool !== 'yes') return says('prep:cold');
    if (facts.flap !== 'open') return says('prep:flap-open');
    return says('prep:let-out');
  }
  const next = advised(game, state);
  const one = deedsOf(game, state).find(({ id }) => id === next);
  const outcome = one && outcomeNow(game, state, one);
  if (outcome?.is === 'not yet' && HOME[outcome.wants.fact] === outcome.wants.values[0]) {
    return says('prove:ready');
  }
  if (outcome?.is === 'stopped') {
    return says(outcome.law === 'live parts' ? 'prep:unplugged' : 'prep:cold');
  }
  return says(next);
}
