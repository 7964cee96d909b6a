import type { FigureId } from '../../care/catalogue/data/figures.js';
import type { When } from '../../care/catalogue/types.js';
import type { MachineKind, TroubleCircumstance } from '../../model/vocabulary.js';
import type { Stage } from './stages.js';
import { spoken } from '../../regions/spoken.js';

/*
 * What trouble looks like and where it comes from, as data: causes, symptoms, checks, stop rules.
 * catalogue.spec.ts checks that every id resolves, that every cause has a check and a fix or somebody
 * to call, and that every check changes something.
 */

/** How reliably a cause makes a symptom, in the words people use. */
export const STRENGTHS = {
  'nearly always': 0.92,
  often: 0.65,
  sometimes: 0.25,
  seldom: 0.06,
} as const;
export type Strength = keyof typeof STRENGTHS;

/** How reliably a check shows the cause that it is there to decide. Judgement. */
export const DECIDES = 0.95;

export type Who = 'you' | 'skilled' | 'professional';

export interface Fix {
  who: Who;
  /** What is done, imperative. */
  say: string;
  /** The care task that does it, where there is one. */
  task?: string;
  /** Minutes it costs, calling and waiting for somebody counted in. */
  minutes: number;
  /** What it has in common with other looks and repairs; part of its minutes. */
  stages?: readonly Stage[];
}

export interface TroubleCause {
  id: string;
  /** As a sentence goes on after "It may be that": "the pump filter is clogged". */
  name: string;
  kinds: readonly MachineKind[];
  /** Only on machines built so. */
  when?: When;
  /** Where it sits on the line; `body` where it is of the machine itself. */
  station: string;
  /** Where it sits, and how it is put right, on a machine that has no such station. */
  elsewhere?: { station: string; fix: Fix };
  /** How it is put right on a machine that does not have the fix's task; without it, it has no such cause. */
  closed?: Fix;
  /** Where it is likelier by how the machine is built, and why, in words. */
  likelier?: { when: When; prior: number; said: string };
  /** Chance within a year, above 0 and below 1; where it fouls, that of a typical state. */
  prior: number;
  /** The care task whose station's fouling moves the prior. */
  fouling?: string;
  /** It may come of a move, of wear or of a slip: a case closed with it teaches nothing of the fouling. */
  teaches?: false;
  /** The prior where a circumstance holds. */
  raised?: Partial<Record<TroubleCircumstance, number>>;
  /** Symptoms, checks and hidden states that show it. */
  makes: Readonly<Record<string, Strength | number>>;
  fix: Fix;
}

export type Sense = 'see' | 'hear' | 'smell' | 'feel' | 'read';

export interface Symptom {
  id: string;
  /** In plain words, as a person would say it. */
  say: string;
  sense: Sense;
  kinds: readonly MachineKind[];
  /** How often it shows without any of the causes. */
  leak: number;
}

/** A hidden state: causes make it like a symptom, and it makes the signs that follow from it. */
export interface HiddenSign {
  id: string;
  kinds: readonly MachineKind[];
  /** How often it is so without any of the causes. */
  leak: number;
  /** How reliably it shows, by symptom. */
  shows: Readonly<Record<string, number>>;
}

/** Something to look at or try, whose answer tells one cause from others. */
export interface Check {
  id: string;
  kinds: readonly MachineKind[];
  /** A question; yes points at the causes that make it. */
  ask: string;
  /** How to do it, in a sentence or two. */
  how: string;
  /** A small drawing of it. */
  figure?: FigureId;
  needs: readonly string[];
  minutes: number;
  /** What it has in common with other looks and repairs; part of its minutes. */
  stages?: readonly Stage[];
  /** Looks that it presupposes: it is offered once they are answered, as far as the machine has them. */
  after?: readonly string[];
  /** Minutes that its mess or effort counts for. */
  mess: number;
  /** Hazards by their ids; each counts for some minutes as well. */
  hazards?: readonly string[];
  leak: number;
}

/** What a household keeps the place of. */
export type HousePlace = 'stopValve' | 'breaker' | 'gasValve';
export const PLACE_NAMES: Record<HousePlace, string> = spoken({
  stopValve: 'Main tap',
  breaker: 'Breaker',
  gasValve: 'Gas valve',
});

/** Whose number a household keeps. */
export type HouseNumber = 'emergency' | 'gas' | 'poison';
export const NUMBER_NAMES: Record<HouseNumber, string> = spoken({
  emergency: 'Emergency number',
  gas: 'Gas emergency',
  poison: 'Poison centre',
});

/** Something before which no suspect is shown. */
export interface StopRule {
  id: string;
  /** What the person sees, in plain words. */
  say: string;
  /** The same in a word or three. */
  short: string;
  kinds: readonly MachineKind[];
  /** What to do now. */
  now: string;
  call: string;
  /** Whose number is shown with it. */
  calls?: readonly HouseNumber[];
  /** What of the house is shut off for it. */
  shuts?: readonly HousePlace[];
  /** The way on, once that is done: the symptom with which the case goes on. */
  then?: { say: string; finding: string };
}
