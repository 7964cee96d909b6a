import { afterEach, describe, expect, it } from 'vitest';
import { PROCEDURES } from '../care/catalogue/data/procedures/index.js';
import { SETUPS } from '../care/catalogue/data/setups.js';
import { TASKS } from '../care/catalogue/data/tasks.js';
import { DRYERS, type MachineKind } from '../model/vocabulary.js';
import { AS_WRITTEN, type Tongue } from '../regions/in-tongue.js';
import { speakAs } from '../regions/spoken.js';
import { CAUSES } from '../trouble/data/causes.js';
import { CHECKS } from '../trouble/data/checks.js';
import { everyText, wordsOf, type PlacedText } from './every-text.js';

const TONGUES: [string, Tongue][] = [
  ['continental Europe', { region: 'eu', units: 'metric' }],
  ['the United Kingdom', { region: 'uk', units: 'metric' }],
  ['the United States', { region: 'us', units: 'us' }],
];
const said = ({ at, text }: PlacedText) => `${at}: ${text}`;
afterEach(() => speakAs(AS_WRITTEN));

/** Words that a person may take two ways, and sentences that made people stumble. */
const STUMBLES: [RegExp, string][] = [
  [
    /\bplugged\b(?! in)|\bplugs? of\b|\bplug (in|out of) the (bath|sink)|draw the plug|\bplug the drain/i,
    'a plug is electric: say clog, or drain closed',
  ],
  [/\bfluff\b/i, 'say lint'],
  [/(?<!(baking|washing)[ -])\bsoda\b/i, 'say baking soda or washing soda'],
  [
    /\b(the|a|this|next|each|every|last|first|your|hot|wet|cool) wash(es)?\b(?! cycle)/i,
    'say laundry for the cloth, load or cycle for the run',
  ],
  [/\bprogrammes?\b/i, 'say cycle'],
  [/\bschools?\b/i, 'say rhythm'],
  [/\bgrade moves\b/i, 'say what the choice decides'],
  [
    /\bpush(ed)? (it |the \w+( \w+)? )?home\b|\bslide the \w+ home\b|turn the \w+ home/i,
    'say: in until it clicks',
  ],
  [/\bveil\b/i, 'say: thin film'],
  [/\bfor ever\b/i, 'say what is seen'],
  [/\bbears the\b/i, 'say: fits'],
  [/\bby mouth\b(?!, and listen|\.)|\bblow through\b/i, 'say: with a syringe'],
];

describe('the words a person reads', () => {
  const all = [...everyText()];

  it('are there to be read', () => expect(all.length).toBeGreaterThan(2000));

  it.each(STUMBLES)('hold nothing like %s (%s)', (word) =>
    expect(all.filter(({ text }) => word.test(text)).map(said)).toEqual([]),
  );

  it('call what a dryer has a screen: the filter is the washer’s', () => {
    const ofDryers = ({ kinds }: { kinds: readonly MachineKind[] }) =>
      kinds.every((kind) => (DRYERS as readonly MachineKind[]).includes(kind));
    const tasks = TASKS.filter(ofDryers);
    const about = [
      tasks,
      PROCEDURES.filter(({ task }) => tasks.some(({ id }) => id === task)),
      CHECKS.filter(ofDryers),
      CAUSES.filter(ofDryers),
    ];
    const texts = [...everyText(about)].filter(({ text }) => /\bfilters?\b/i.test(text));
    expect(texts.map(said)).toEqual([]);
  });

  it.each(TONGUES)('take at most 20 words for a step’s action, in %s', (_, tongue) => {
    speakAs(tongue);
    const steps = [
      ...PROCEDURES.flatMap((one) => [...one.steps, ...one.putBack, ...one.proof]),
      ...SETUPS.flatMap((one) => [...one.steps, ...one.undo]),
    ];
    expect(steps.length).toBeGreaterThan(250);
    expect(steps.map((step) => step.do).filter((text) => wordsOf(text).length > 20)).toEqual([]);
  });
});
