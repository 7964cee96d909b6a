import { isWasher, type MachineKind } from '../../model/vocabulary.js';
import type { AgainstOwn } from './against-own.js';
import type { Heard } from './sound.js';

/** What a sound may mean, and the symptom of Trouble that it speaks for. */
export interface Meaning {
  say: string;
  finding?: string;
}

/** A dryer's drum turns 45 to 60 times a minute; a little more either way is heard as such, Hz. Common practice. */
const DRUM = { from: 0.65, to: 1.15 } as const;
/** A blower sits on the motor's shaft: 1,725 rpm (29 Hz), or 2,800 to 3,400 rpm (47 to 57 Hz). Common practice. */
const SHAFTS = [
  [26, 31],
  [46, 58],
] as const;
/** Hum of the mains and of what it drives: twice 50 or 60 Hz. */
const MAINS = [100, 120] as const;
const MAINS_NEAR = 2.5;
/** Roar is most of it from so much on; a tone stands high from so many dB on. Judgement. */
const MOSTLY = 0.4;
const HIGH_TONE = 20;

/**
 * What a sound may mean: weak evidence, each for the ear to confirm.
 * @param against this machine's own, where there is one
 */
export function meaningOf(
  { tones, roar, thumps }: Heard,
  kind: MachineKind,
  against?: AgainstOwn,
): Meaning[] {
  const all: Meaning[] = [];
  const louder = against?.is === 'worse';
  const washer = isWasher(kind);
  if (thumps !== undefined && !washer && thumps >= DRUM.from && thumps <= DRUM.to) {
    all.push({
      say: `${Math.round(60 * thumps)} thumps a minute are about a turn of the drum each: a roller worn flat, or a button in the drum.`,
      finding: 'squeal',
    });
  }
  if (roar >= MOSTLY && louder) {
    all.push(
      washer
        ? {
            say: 'Louder than its own, and most of it broad roar: if it rises with the spin’s speed, bearings are to be looked at.',
            finding: 'roar',
          }
        : {
            say: 'Louder than its own, and most of it broad roar: lint in the blower’s vanes, or rollers. A wire brush through the lint way, then listen again.',
            finding: 'rumble',
          },
    );
  }
  const shaft = tones.find(
    ({ hz, over }) => over >= HIGH_TONE && SHAFTS.some(([from, to]) => hz >= from && hz <= to),
  );
  if (shaft && !washer && louder) {
    all.push({
      say: `A tone at ${Math.round(shaft.hz)} Hz, once a turn of a motor: what turns with it is out of balance, as a blower with lint in one vane.`,
      finding: 'rumble',
    });
  }
  const mains = tones.find(({ hz }) => MAINS.some((one) => Math.abs(hz - one) <= MAINS_NEAR));
  if (mains && washer) {
    all.push({
      say: `A hum at ${Math.round(mains.hz)} Hz is what the mains drives: a pump that hums, and no water that comes, is held fast.`,
      finding: 'hum-no-flow',
    });
  }
  return all;
}
