import { FileProblem } from '../db/data-file.js';
import { ProblemError } from '../http/problem.js';

/** What a thread gives back: an error does not cross as the one it is. */
export type Outcome =
  | { done: unknown }
  | { problem: Pick<ProblemError, 'status' | 'title' | 'more'> }
  | { failed: Failure };

interface Failure {
  message: string;
  stack: string | undefined;
  code: string | undefined;
  /** It is a sentence for a person. */
  told: boolean;
}

/** Does work, and says what came of it so that it can cross. */
export async function outcomeOf(work: () => unknown): Promise<Outcome> {
  try {
    return { done: await work() };
  } catch (error) {
    if (error instanceof ProblemError) {
      const { status, title, more } = error;
      return { problem: { status, title, more } };
    }
    const { message, stack, code } = error as NodeJS.ErrnoException;
    return { failed: { message, stack, code, told: error instanceof FileProblem } };
  }
}

/** What was done. @throws what was thrown there */
export function resultOf<T>(outcome: Outcome): T {
  if ('done' in outcome) return outcome.done as T;
  if ('problem' in outcome) {
    const { status, title, more } = outcome.problem;
    throw new ProblemError(status, title, more);
  }
  const { told, message, ...rest } = outcome.failed;
  throw told ? new FileProblem(message) : Object.assign(new Error(message), rest);
}
