import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS } from '../model/vocabulary.js';
import { actionsOf } from './actions.js';
import { drawCase, isPlayable } from './case.js';
import { perform } from './game.js';
import { guideOf } from './guide.js';
import { levelById } from './levels.js';
import { startState } from './state.js';

/** Words a second of who reads on a phone, 200 a minute (Brysbaert 2019 has 238 for reading at rest; from memory). */
const WORDS = 200 / 60;
/** Seconds to find a button and press it. Judgement. */
const PRESS = 3;
const THREE_MINUTES = 180;

const wordsIn = (...said: string[]): number => said.join(' ').split(/\s+/).length;
const kinds = MACHINE_KINDS.filter((kind) =>
  isPlayable(levelById('first'), { name: '', kind, features: {} }),
);

describe('the guided case', () => {
  it.each(kinds.flatMap((kind) => Array.from({ length: 12 }, (_, seed) => [kind, seed] as const)))(
    'on a %s, seed %i, comes to its end within three minutes of reading and pressing',
    (kind, seed) => {
      const game = drawCase({ seed, level: 'first', machine: { name: '', kind, features: {} } });
      let state = startState(game);
      let seconds = 0;
      for (let i = 0; i < 30 && !state.end; i++) {
        const next = guideOf(game, state)!;
        const action = actionsOf(game, state).find(({ id }) => id === next.act);
        const before = state;
        state = perform(game, state, next.act);
        expect(state).not.toBe(before);
        const came = state.happened.slice(before.happened.length).map(({ say }) => say);
        seconds += wordsIn(next.why, action?.say ?? '', ...came) / WORDS + PRESS;
      }
      expect(state.end).toBe('done');
      expect(state.proved).toBe(true);
      expect(state.mess).toBe(0);
      expect(seconds).toBeLessThan(THREE_MINUTES);
    },
  );
});
