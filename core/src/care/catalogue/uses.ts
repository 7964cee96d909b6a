import { procedureOf, holds } from './lookup.js';
import type { Build, Task } from './types.js';

/** What a task uses up of one supply. */
export interface Use {
  supply: string;
  /** In the supply's unit, when it is needed. */
  amount: number;
  /** How often it is needed, 0 to 1. */
  share: number;
  /** In the long run, each time. */
  expected: number;
}

/** What a task uses up on a machine. */
export function usesOf(task: Task, machine: Build): Use[] {
  return procedureOf(machine, task.id).fetch.flatMap(({ uses, when }) => {
    if (!uses || !holds(when, machine)) return [];
    const { supply, amount, share = 1 } = uses;
    return [{ supply, amount, share, expected: amount * share }];
  });
}

/** What is taken to have been used where nobody said: what the task always needs. */
export const usuallyUsed = (uses: readonly Use[]): { supply: string; amount: number }[] =>
  uses.filter(({ share }) => share === 1).map(({ supply, amount }) => ({ supply, amount }));
