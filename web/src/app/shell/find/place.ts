/** Under what a found place is shown. */
export const GROUPS = {
  trouble: 'Something is wrong',
  work: 'Work to do',
  machines: 'Machines',
  measure: 'Measure',
  know: 'Good to know',
  keep: 'House and settings',
  past: 'What happened',
} as const;
export type Group = keyof typeof GROUPS;

/** Somewhere to go. */
export interface Place {
  id: string;
  group: Group;
  name: string;
  /** What going there does. */
  leads: string;
  url: string;
}

/** A place with what it is found by. */
export interface Indexed extends Place {
  /** Other words for it. */
  words?: string;
  /** Sentences in which somebody may remember a word. */
  prose?: string;
  /** Other ways to put it, each by itself. */
  phrases?: readonly string[];
  /** How much it counts against others, 1 by default. */
  weight?: number;
}
