import { createEmptyCard, fsrs, Rating, type Card } from 'ts-fsrs';

/*
 * What was missed comes back: each question that was asked has a card, by the free spaced repetition scheduler.
 */

/** What is remembered of the questions that were asked, by their ids. */
export interface PracticeMemory {
  cards: Readonly<Record<string, KeptCard>>;
}

/** A card as it is kept: instants in ISO 8601. */
export interface KeptCard {
  due: string;
  stability: number;
  difficulty: number;
  elapsed: number;
  scheduled: number;
  steps: number;
  reps: number;
  lapses: number;
  state: number;
  last?: string;
}

export const NO_MEMORY: PracticeMemory = { cards: {} };
/** The most cards that are kept; those due latest go. */
const MOST_CARDS = 2000;

/** Without fuzz: the same answers give the same days. */
const SCHEDULER = fsrs({ enable_fuzz: false });

/**
 * Notes an answer.
 * @param now UTC milliseconds
 */
export function remembered(
  { cards }: PracticeMemory,
  id: string,
  right: boolean,
  now: number,
): PracticeMemory {
  const before = cards[id];
  const card = before ? toCard(before) : createEmptyCard(new Date(now));
  const { card: next } = SCHEDULER.next(card, new Date(now), right ? Rating.Good : Rating.Again);
  const all = { ...cards, [id]: toKept(next) };
  const ids = Object.keys(all);
  if (ids.length <= MOST_CARDS) return { cards: all };
  const kept = ids.sort((a, b) => all[a]!.due.localeCompare(all[b]!.due)).slice(0, MOST_CARDS);
  return { cards: Object.fromEntries(kept.map((one) => [one, all[one]!])) };
}

/** Ids of the questions that are due, the longest due first. @param now UTC milliseconds */
export const dueQuestions = ({ cards }: PracticeMemory, now: number): string[] =>
  Object.entries(cards)
    .filter(([, { due }]) => Date.parse(due) <= now)
    .sort(([, a], [, b]) => a.due.localeCompare(b.due))
    .map(([id]) => id);

/** When the next one is due, UTC milliseconds; nothing where none was asked. */
export const nextDue = ({ cards }: PracticeMemory): number | undefined => {
  const all = Object.values(cards).map(({ due }) => Date.parse(due));
  return all.length ? Math.min(...all) : undefined;
};

const toCard = (kept: KeptCard): Card => ({
  due: new Date(kept.due),
  stability: kept.stability,
  difficulty: kept.difficulty,
  elapsed_days: kept.elapsed,
  scheduled_days: kept.scheduled,
  learning_steps: kept.steps,
  reps: kept.reps,
  lapses: kept.lapses,
  state: kept.state,
  ...(kept.last ? { last_review: new Date(kept.last) } : {}),
});

const toKept = (card: Card): KeptCard => ({
  due: card.due.toISOString(),
  stability: card.stability,
  difficulty: card.difficulty,
  elapsed: card.elapsed_days,
  scheduled: card.scheduled_days,
  steps: card.learning_steps,
  reps: card.reps,
  lapses: card.lapses,
  state: card.state,
  ...(card.last_review ? { last: card.last_review.toISOString() } : {}),
});

/** Whether something that was kept is a memory still: what is not is left out. */
export function isMemory(kept: unknown): kept is PracticeMemory {
  if (typeof kept !== 'object' || kept === null || !('cards' in kept)) return false;
  const { cards } = kept;
  return (
    typeof cards === 'object' &&
    cards !== null &&
    Object.values(cards as Record<string, Partial<KeptCard> | null>).every(
      (one) => one !== null && typeof one.due === 'string' && !Number.isNaN(Date.parse(one.due)),
    )
  );
}
