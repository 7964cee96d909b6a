import type { PracticeAction } from '@needlecase/core';

const litres = (value: number): string => `${Math.round(10 * value) / 10} L`;

/** What something costs, in a few words: minutes, what is waited, what runs on the floor, money. */
export function sayPrice({
  minutes,
  waits,
  spills,
  money,
  done,
  back,
}: Pick<PracticeAction, 'minutes' | 'waits' | 'spills' | 'money' | 'done' | 'back'>): string {
  if (done && !back) return '';
  return [
    ...(back ? [back.toLowerCase()] : []),
    `${Math.round(minutes)} min`,
    ...(waits >= 1 ? [`waits ${sayWait(waits)}`] : []),
    ...(spills > 0 ? [`spills ${litres(spills)}`] : []),
    ...(money > 0 ? [`about ${money}`] : []),
  ].join(', ');
}

const sayWait = (minutes: number): string =>
  minutes < 90 ? `${Math.round(minutes)} min` : `${Math.round(minutes / 60)} h`;
