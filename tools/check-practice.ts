/*
 * A thousand cases of practice, drawn evenly from every level and kind of machine that can have it: the minutes of a hand
 * that follows the adviser beside those of one that goes through the looks in a fixed order, and of a careless one.
 * Ends with 1 where it misses what it promises.
 */
import { HANDS, playAs, type Hand } from '../core/src/practice/bots.js';
import { isPlayable } from '../core/src/practice/case.js';
import { LEVELS } from '../core/src/practice/levels.js';
import { MACHINE_KINDS } from '../core/src/model/vocabulary.js';

const CASES = 1000;
/** Of the minutes of a fixed order. */
const MOST = 0.6;

const playable = MACHINE_KINDS.flatMap((kind) => {
  const machine = { name: 'A machine', kind, features: {} };
  return LEVELS.filter((level) => level.id !== 'first' && isPlayable(level, machine)).map(
    (level) => ({ machine, level: level.id }),
  );
});
type Sum = Record<'minutes' | 'mess' | 'stopped' | 'mended', number>;
const none = (): Sum => ({ minutes: 0, mess: 0, stopped: 0, mended: 0 });
const sums = new Map<string, Record<Hand, Sum>>();
for (let i = 0; i < CASES; i++) {
  const begun = { ...playable[i % playable.length]!, seed: 1000 + i };
  for (const of of ['all', begun.level]) {
    if (!sums.has(of)) sums.set(of, { practised: none(), fixed: none(), careless: none() });
  }
  for (const hand of HANDS) {
    const { state } = playAs(hand, begun);
    for (const of of ['all', begun.level]) {
      const sum = sums.get(of)![hand];
      sum.minutes += state.minutes;
      sum.mess += state.mess;
      sum.stopped += state.stopped.length;
      sum.mended += Number(state.end !== 'call');
    }
  }
}
console.log(
  `Practice, ${CASES} cases: minutes, litres on the floor, hands stopped, ended without a call`,
);
for (const [of, hands] of sums) {
  const told = HANDS.map((hand) => {
    const { minutes, mess, stopped, mended } = hands[hand];
    return `${hand} ${Math.round(minutes)} min, ${Math.round(mess)} L, ${stopped}, ${mended}`;
  });
  const share = hands.practised.minutes / hands.fixed.minutes;
  console.log(`  ${of}: ${share.toFixed(2)} of a fixed order; ${told.join('; ')}`);
}
const all = sums.get('all')!;
const share = all.practised.minutes / all.fixed.minutes;
const holds = share <= MOST && all.careless.mess > 0 && all.practised.stopped === 0;
console.log(`${holds ? ' ' : '!'} practised over fixed: ${share.toFixed(3)} (at most ${MOST})`);
process.exit(holds ? 0 : 1);
