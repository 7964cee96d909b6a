import { spoken } from '../regions/spoken.js';
import type { Law } from '../world/acts.js';
import type { Fact } from '../world/facts.js';

/** Laws at which the hand is stopped: whoever goes on is hurt. In the words in which it is told. */
export const STOPPED: Partial<Record<Law, { short: string; say: string }>> = spoken({
  'live parts': {
    short: 'hand in, plug in',
    say: 'Your hand would be where a pump, a motor or a heater can start, and the plug is in. Pull it first.',
  },
  'hot parts': {
    short: 'not known to be cool',
    say: 'Nobody has felt whether it is cool. Water from a hot cycle scalds within seconds, metal burns. Feel it first, and wait.',
  },
  gas: {
    short: 'gas valve open',
    say: 'With the gas on, an open duct lets what burns and what poisons into the room. Shut its valve first.',
  },
  'too heavy alone': {
    short: 'too heavy to move',
    say: 'A drum full of water swings and weighs as much again. Let the water out before it is moved.',
  },
  'products meet': {
    short: 'products meet',
    say: 'What you bring gives off poison with what is still in there. Rinse first.',
  },
});

/** What is missing before something can be done, by what it is and how it would have to be. */
export const NOT_YET: Partial<Record<Fact, Readonly<Record<string, string>>>> = spoken({
  power: { off: 'plug out first', on: 'plug it in first' },
  tap: { open: 'open the tap first', shut: 'tap shut first' },
  gas: { shut: 'gas valve shut first', open: 'gas valve open first' },
  cool: { yes: 'feel whether it is cool' },
  place: { out: 'pull it out first', home: 'push it back first' },
  flap: { open: 'open the flap first', shut: 'shut the flap first' },
  filter: { in: 'filter in first', out: 'filter out first' },
  thinHose: {
    clipped: 'cap on, hose clipped',
    out: 'draw the thin hose out',
    open: 'cap off first',
  },
  drainHose: { in: 'hose back in its pipe' },
  trap: { on: 'trap on first' },
  fillHose: { on: 'fill hose on first' },
  duct: { on: 'hose on first', off: 'hose off first' },
  screen: { in: 'screen in first', out: 'screen out first' },
  fineFilter: { in: 'fine screen in first' },
  exchanger: { in: 'exchanger in first' },
  exchangerFlap: { shut: 'its flap shut first', open: 'its flap open first' },
  housing: { on: 'housing on first' },
  cabinet: { on: 'panel on first' },
  tank: { in: 'tank in first' },
  filterTight: { yes: 'look for drips first' },
  capTight: { yes: 'look for drips first' },
  inletTight: { yes: 'look at the joint first' },
  ductTight: { yes: 'feel along the duct first' },
});

/** What was left so at the end, and what comes of it. */
export const LEFT_SO: Partial<Record<Fact, string>> = spoken({
  power: 'The plug is still out: the next person thinks that it is broken.',
  tap: 'The tap is still shut: the next load stops with a fault.',
  gas: 'The gas valve is still shut: the next load stays wet.',
  place: 'It still stands pulled out.',
  flap: 'The flap is still open.',
  filter: 'The filter is not in: the next load runs out on the floor.',
  thinHose: 'The cap is off the thin hose: the next load runs out on the floor.',
  drainHose: 'The drain hose is not in its pipe: the next load runs out on the floor.',
  trap: 'The trap is off: the next load runs out on the floor.',
  fillHose: 'The fill hose is off: water at full pressure, once the tap is open.',
  duct: 'The duct is off: lint and damp go into the room.',
  filterTight: 'The filter was opened, and nobody looked for drips with the flap open.',
  capTight: 'The thin hose was opened, and nobody looked at its cap with water on it.',
  inletTight: 'The fill hose was off, and nobody looked at its joint with the tap open.',
  drainTight: 'The drain hose was off its pipe, and nobody watched it while water was let out.',
  ductTight: 'The duct was off, and nobody felt along it while the dryer blew.',
  gasTight: 'The gas valve was turned, and nobody smelt at it after the last move.',
  rinsed: 'A product is still in the machine.',
});
/** Anything else that is not as it is in use. */
export const LEFT_OPEN = 'Something that came out is not back in.';

/** What is heard in passing where a machine is met. */
export const HURRIES: readonly string[] = spoken([
  'I need it by noon.',
  'The football things are in there.',
  'It did this last week, too.',
  'I only have the evening.',
  'My neighbour says it is surely the pump.',
  'Nobody has touched it, I swear.',
]);

/** What it means that a law is broken, for whoever left a step out. */
export const LAW_WORDS: Record<Law, string> = spoken({
  'live parts': STOPPED['live parts']!.say,
  'hot parts': STOPPED['hot parts']!.say,
  gas: STOPPED.gas!.say,
  'too heavy alone': 'It is moved by two, and never with water in its drum.',
  'products meet': STOPPED['products meet']!.say,
  'out of reach': 'What is in the way has to be out of it first.',
  flood: 'Water runs on the floor.',
  'sign not visible':
    'What is looked for does not show as things stand: a drip needs water behind it, and the place open.',
  'leak look before heat':
    'What was opened has to be looked at before a hot cycle runs through it.',
  'not ready to run': 'Something is not back in its place, and it cannot run.',
  'soaking touched': 'What soaks is touched before its time.',
  'put back wet': 'It goes back wet: lint clings, or mould grows.',
  'put back unrinsed': 'It goes back with what it was cleaned with still on it.',
  'noted too late': 'How dirty it was is noted after it was cleaned.',
  'wrong order': 'What this needs was not done before it.',
  'left undone': 'At the end something is not as it is used.',
  'left unproved': 'What was opened was not looked at with water, air or gas on it.',
});
