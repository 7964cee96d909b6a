import { createEmptyCard, fsrs, Rating } from 'ts-fsrs';
import { describe, expect, it } from 'vitest';
import { dueQuestions, isMemory, nextDue, NO_MEMORY, remembered } from './memory.js';

const NOW = Date.parse('2026-11-28T08:00:00Z');
const DAY = 86_400_000;

describe('what is remembered of questions', () => {
  it('is scheduled as the package itself does', () => {
    const scheduler = fsrs({ enable_fuzz: false });
    let card = createEmptyCard(new Date(NOW));
    let memory = NO_MEMORY;
    let now = NOW;
    for (const right of [true, true, false, true, true]) {
      card = scheduler.next(card, new Date(now), right ? Rating.Good : Rating.Again).card;
      memory = remembered(memory, 'a', right, now);
      expect(Date.parse(memory.cards['a']!.due)).toBe(card.due.getTime());
      now = card.due.getTime() + DAY;
    }
  });

  it('comes back sooner where it was missed', () => {
    const memory = remembered(remembered(NO_MEMORY, 'right', true, NOW), 'missed', false, NOW);
    expect(Date.parse(memory.cards['missed']!.due)).toBeLessThan(
      Date.parse(memory.cards['right']!.due),
    );
    expect(dueQuestions(memory, NOW)).toEqual([]);
    expect(dueQuestions(memory, NOW + 30 * DAY)[0]).toBe('missed');
    expect(nextDue(memory)).toBe(Date.parse(memory.cards['missed']!.due));
    expect(nextDue(NO_MEMORY)).toBeUndefined();
  });

  it('is the same after it was written down and read', () => {
    const memory = remembered(NO_MEMORY, 'a', true, NOW);
    const read: unknown = JSON.parse(JSON.stringify(memory));
    expect(isMemory(read)).toBe(true);
    expect(remembered(read as typeof memory, 'a', true, NOW + 9 * DAY)).toEqual(
      remembered(memory, 'a', true, NOW + 9 * DAY),
    );
  });

  it.each([
    null,
    3,
    {},
    { cards: null },
    { cards: { a: {} } },
    { cards: { a: null } },
    { cards: { a: { due: 'soon' } } },
  ])('does not take %j for one', (kept) => expect(isMemory(kept)).toBe(false));
});
