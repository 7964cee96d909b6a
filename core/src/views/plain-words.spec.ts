import { describe, expect, it } from 'vitest';
import { SETUPS } from '../care/catalogue/data/setups.js';
import { HAZARDS } from '../care/catalogue/data/hazards.js';
import { LOAD_CARE } from '../care/catalogue/data/load-care.js';
import { LOAD_HABITS } from '../care/catalogue/data/habits.js';
import { PROCEDURES } from '../care/catalogue/data/procedures/index.js';
import { STATIONS } from '../care/catalogue/data/stations.js';
import { TASKS } from '../care/catalogue/data/tasks.js';
import { CAUSES } from '../trouble/data/causes.js';
import { CHECKS } from '../trouble/data/checks.js';
import { STOP_RULES } from '../trouble/data/stops.js';
import { SYMPTOMS } from '../trouble/data/symptoms.js';

/** Every sentence in a piece of knowledge, with where it stands. */
function* sentences(of: unknown, at: string): Generator<[string, string]> {
  if (typeof of === 'string') {
    if (of.includes(' ')) yield [at, of];
  } else if (of && typeof of === 'object')
    for (const [key, part] of Object.entries(of)) yield* sentences(part, `${at}/${key}`);
}

const ALL = [
  ...sentences({ SETUPS, HAZARDS, LOAD_CARE, LOAD_HABITS, PROCEDURES, STATIONS, TASKS }, 'care'),
  ...sentences({ CAUSES, CHECKS, STOP_RULES, SYMPTOMS }, 'trouble'),
];

/** Words that a person may take two ways, and sentences that made people stumble. */
const STUMBLES: [RegExp, string][] = [
  [
    /\bplugged\b(?! in)|\bplugs? of\b|\bplug (in|out of) the (bath|sink)|draw the plug|\bplug the drain/i,
    'a plug is electric: say clog, or drain closed',
  ],
  [/\bgrade moves\b/i, 'say what the choice decides'],
  [/\bpush(ed)? (it )?home\b/i, 'say: in until it clicks'],
  [/\bveil\b/i, 'say: thin film'],
  [/\bfor ever\b/i, 'say what is seen'],
  [/\bbears the\b/i, 'say: fits'],
];

describe('the words a person reads', () => {
  it('are there to be read', () => expect(ALL.length).toBeGreaterThan(1500));

  it.each(STUMBLES)('hold nothing like %s (%s)', (word) =>
    expect(ALL.filter(([, said]) => word.test(said))).toEqual([]),
  );
});
