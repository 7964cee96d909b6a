import type { Amount } from '../units/quantity.js';
import type { Answer } from '../model/vocabulary.js';
import type { Answers } from '../trouble/diagnosis/diagnosis.js';
import type { CauseBelief } from '../trouble/diagnosis/hypotheses.js';
import type { Made } from '../trouble/data/stages.js';
import type { Fact } from '../world/facts.js';
import type { Law } from '../world/acts.js';
import type { World } from '../world/world.js';
import type { PracticeCase } from './case.js';

/** What came of something done, as it is told. */
export interface Happened {
  act: string;
  is: 'done' | 'found' | 'figure' | 'stopped' | 'spilled' | 'proof' | 'hint' | 'end';
  say: string;
  minutes: number;
  /** L on the floor. */
  mess: number;
}

/** A figure that was taken, in its own unit as the person reads it. */
export interface TakenFigure {
  what: MeasureId;
  /** In a sentence. */
  say: string;
  /** SI; endless where it never came to its end. */
  value: number;
  /** What stands in the fields of its instrument; empty where it never came to its end. */
  given: Readonly<Record<string, Amount>>;
}

export const MEASURES = ['tub', 'drain', 'bucket', 'fill', 'air', 'drying'] as const;
export type MeasureId = (typeof MEASURES)[number];

export const ENDS = ['done', 'rest', 'call'] as const;
export type PracticeEnd = (typeof ENDS)[number];

/** Where a case stands. */
export interface PracticeState {
  world: World;
  /** Minutes of hands; minutes in which one waits. */
  minutes: number;
  waiting: number;
  /** L on the floor. */
  mess: number;
  /** In the household’s money. */
  money: number;
  /** Laws at which the hand was stopped. */
  stopped: readonly Law[];
  answers: Answers;
  figures: readonly TakenFigure[];
  /** What was opened for a look or a repair and counts as made. */
  made: Made;
  /** Indices of causes that were put right, and of what is still wrong. */
  fixed: readonly number[];
  left: readonly number[];
  /** Of those put right, those after which it went on. */
  failed: readonly number[];
  happened: readonly Happened[];
  /** Since the last change it was run, and it was right. */
  proved: boolean;
  hints: number;
  /** Something to catch water stands below. */
  tray: boolean;
  end?: PracticeEnd;
  /** Facts that were left so, once it is over. */
  leftSo: readonly Fact[];
}

/** A case as it is met: symptoms told, nothing done. */
export const startState = ({ hidden, start }: PracticeCase): PracticeState => ({
  world: start,
  minutes: 0,
  waiting: 0,
  mess: 0,
  money: 0,
  stopped: [],
  answers: hidden.reported,
  figures: [],
  made: 0,
  fixed: [],
  left: hidden.wrong,
  failed: [],
  happened: [],
  proved: false,
  hints: 0,
  tray: false,
  leftSo: [],
});

/** What may be wrong, by what was found so far. */
export const beliefOf = (
  { trouble }: PracticeCase,
  { answers, failed }: Pick<PracticeState, 'answers' | 'failed'>,
): CauseBelief => trouble.believe(answers, [...failed]);

/** With one more answer; what was answered already stays. */
export const answered = (answers: Answers, id: string, answer: Answer): Answers =>
  answers[id] === undefined ? { ...answers, [id]: answer } : answers;
