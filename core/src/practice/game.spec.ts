import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS, type MachineKind } from '../model/vocabulary.js';
import type { Features } from '../model/schemas.js';
import { actionsOf, POCKETS } from './actions.js';
import { drawCase, isPlayable, type PracticeGame } from './case.js';
import { HINT, perform, replay } from './game.js';
import { LEVELS } from './levels.js';
import { startState } from './state.js';
import { HANDS, playAs } from './bots.js';

const front = (features: Features = { filterAccess: 'front-left', drainDownHose: 'yes' }) => ({
  name: 'The washer',
  kind: 'front-load-washer' as const,
  features,
});
const FULL = { seed: 3, level: 'full', machine: front() } as const;
const played = (...acts: string[]) => replay({ ...FULL, acts }).state;
const action = (game: PracticeGame, id: string) => {
  const { game: drawn, state } = replay(game);
  return actionsOf(drawn, state).find((one) => one.id === id)!;
};

describe('a case that is played', () => {
  it('stops the hand where the plug is in, and where nobody felt whether it is cool', () => {
    const live = played('look:open-filter');
    expect(live.stopped).toEqual(['live parts']);
    expect(live.answers['open-filter']).toBeUndefined();
    expect(live.minutes).toBe(0);
    const hot = played('prep:unplugged', 'look:open-filter');
    expect(hot.stopped).toEqual(['hot parts']);
    const right = played('prep:unplugged', 'prep:cold', 'prep:let-out', 'look:open-filter');
    expect(right.stopped).toEqual([]);
    expect(right.answers['open-filter']).toBeDefined();
    expect(right.mess).toBe(0);
  });

  it('says the litres before the filter is opened on a full drum, and they run out', () => {
    const acts = ['prep:unplugged', 'prep:cold'];
    const { spills } = action({ ...FULL, acts }, 'look:open-filter');
    expect(spills).toBeGreaterThan(8);
    const flooded = played(...acts, 'look:open-filter');
    expect(flooded.mess).toBeCloseTo(spills, 1);
    // The sump's litre stands below the drum, and its own mark.
    const { start } = drawCase(FULL);
    expect(flooded.mess).toBeCloseTo(start.litres - 0, 0);
    // The tray and the towels take three of them.
    const tray = played(...acts, 'prep:flap-open', 'look:open-filter');
    expect(flooded.mess - tray.mess).toBeCloseTo(3, 1);
  });

  it('moves no full drum, and pulls nothing out by its cable', () => {
    expect(played('prep:pulled-out').world.facts.place).toBe('home');
    expect(action({ ...FULL, acts: [] }, 'prep:pulled-out').notYet).toBe('plug out first');
    const heavy = played('prep:unplugged', 'prep:pulled-out');
    expect(heavy.stopped).toEqual(['too heavy alone']);
  });

  it('lets the tap out on the floor where the fill hose comes off before it is shut', () => {
    const begun = { seed: 2, level: 'any', machine: front() } as const;
    const acts = ['prep:unplugged', 'prep:pulled-out'];
    const wet = replay({ ...begun, acts: [...acts, 'look:screen-look'] }).state;
    expect(wet.mess).toBeGreaterThan(10);
    const dry = replay({ ...begun, acts: ['prep:water-off', ...acts, 'look:screen-look'] }).state;
    expect(dry.mess).toBe(0);
  });

  it('opens no duct while the gas is on', () => {
    const machine = {
      name: 'D',
      kind: 'vented-dryer' as const,
      features: { energy: 'gas' as const },
    };
    const begun = { seed: 1, level: 'one' as const, machine };
    const acts = ['prep:unplugged', 'prep:cold', 'prep:pulled-out'];
    const open = replay({ ...begun, acts: [...acts, 'look:look-duct'] }).state;
    expect(open.answers['look-duct']).toBeUndefined();
    const shut = replay({ ...begun, acts: ['prep:gas-off', ...acts, 'look:look-duct'] }).state;
    expect(shut.answers['look-duct']).toBeDefined();
  });

  it('left undone, a cap shows at the proof; left out, a plug stops the hand', () => {
    const all = played('work:filter-clogged:');
    expect(all.stopped).toEqual([]);
    const cap = played('work:filter-clogged:hose-cap', 'prove:try');
    expect(cap.mess).toBeGreaterThan(5);
    expect(cap.happened.map(({ say }) => say).join(' ')).toContain('cap is off the thin hose');
    const plug = played('work:filter-clogged:unplug');
    expect(plug.stopped).toEqual(['live parts']);
    expect(plug.fixed).toEqual([]);
  });

  it('shows what is still wrong, and takes what was put right off the suspects', () => {
    const game = drawCase(FULL);
    const wrong = game.trouble.causes[game.hidden.wrong[0]!]!.id;
    const other = ['filter-clogged', 'impeller-jammed'].find((id) => id !== wrong)!;
    const prepared = ['prep:unplugged', 'prep:cold', 'prep:let-out'];
    const tried = played(...prepared, `fix:${other}`, 'prep:unplugged', 'prove:try');
    expect(tried.proved).toBe(false);
    expect(tried.failed).toHaveLength(1);
    expect(tried.happened.at(-1)!.say).toMatch(/^It is not over/);
    const mended = played(...prepared, `fix:${wrong}`, 'prep:unplugged', 'prove:try');
    expect(mended.proved).toBe(true);
  });

  it('sees a drip only with the flap open', () => {
    const opened = ['prep:unplugged', 'prep:cold', 'prep:let-out', 'fix:filter-clogged'];
    const seen = played(...opened, 'prep:unplugged', 'prove:try', 'prove:ready', 'end:done');
    expect(seen.leftSo).toEqual([]);
    const shut = played(...opened, 'prove:ready', 'prove:try', 'end:done');
    expect(shut.leftSo).toContain('filterTight');
  });

  it('passes over what it does not know, and what comes after the end', () => {
    const none = played();
    for (const act of ['', 'look:', 'fix:nothing', 'end:never', 'work:bearings-worn:', 'prep:x']) {
      expect(played(act)).toEqual(none);
    }
    const over = played('end:call');
    expect(perform(drawCase(FULL), over, 'hint')).toBe(over);
    expect(over.money).toBeGreaterThan(0);
  });

  it('gives a hint for its minutes', () => {
    const hinted = played('hint');
    expect([hinted.minutes, hinted.hints]).toEqual([HINT, 1]);
    expect(hinted.happened[0]!.say.length).toBeGreaterThan(20);
  });
});

const PLAYED = MACHINE_KINDS.flatMap((kind: MachineKind) =>
  LEVELS.flatMap((level) =>
    [1].map((seed) => ({ kind, level, seed, machine: { name: 'M', kind, features: {} } })),
  ),
).filter(({ level, machine }) => isPlayable(level, machine));

describe('laws of every case', () => {
  it.each(PLAYED)(
    '$kind, $level.id, $seed: replays exactly, and no step undoes minutes or mess',
    ({ level, seed, machine }) => {
      for (const hand of HANDS) {
        const begun = { seed, level: level.id, machine };
        const one = playAs(hand, begun);
        expect(replay({ ...begun, acts: one.acts }).state).toEqual(one.state);
        let state = startState(one.game);
        for (const act of one.acts) {
          const next = perform(one.game, state, act);
          expect(next.minutes).toBeGreaterThanOrEqual(state.minutes);
          expect(next.mess).toBeGreaterThanOrEqual(state.mess);
          expect(next.world.litres).toBeGreaterThanOrEqual(0);
          for (const { pocket, minutes, say, how } of actionsOf(one.game, next)) {
            expect(POCKETS).toContain(pocket);
            expect(minutes).toBeGreaterThanOrEqual(0);
            expect(say.length * how.length).toBeGreaterThan(0);
          }
          state = next;
        }
        expect(state.end).toBeDefined();
      }
    },
  );
});
