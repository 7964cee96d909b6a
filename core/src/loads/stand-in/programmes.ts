/*
 * What a machine draws while a programme runs, made up: for the plug that stands in for a real one, and for checks of
 * what reads the watts. Figures are common practice for household machines, varied by chance.
 */

import type { STAND_INS } from '../../model/stand-ins.js';

/** So many watts for so many seconds, with a drum that turns to and fro where it tumbles. */
export interface Phase {
  does: 'fill' | 'heat' | 'tumble' | 'spin' | 'drain' | 'soak' | 'dry' | 'cool' | 'rest' | 'turn';
  seconds: number;
  watts: number;
  /** The drum stands still in between, this share of the time. */
  still?: number;
  /** Watts at its end, where they rise or fall. */
  towards?: number;
}

export type StandIn = (typeof STAND_INS)[number];

/** How a washer is, and what is wrong with it. */
export interface WasherState {
  /** Watts of its heater: every machine has one heater. */
  heater?: number;
  /** Its heater is on for this share of the time that it heats: scale on it, and its limiter holds it off. */
  on?: number;
  /** Filling takes so many times as long. */
  filling?: number;
  /** It tries to spin so many times before it does. */
  tries?: number;
  /** Its water does not go: it pumps, and gives up. */
  blocked?: boolean;
}

type Random = () => number;
const between = (random: Random, from: number, to: number): number => from + (to - from) * random();
const minutes = (random: Random, from: number, to: number): number =>
  Math.round(60 * between(random, from, to));

/** Water in: the door locks, the pump is tried, valves open. */
const fills = (random: Random): Phase[] => [
  { does: 'drain', seconds: Math.round(between(random, 8, 20)), watts: between(random, 28, 40) },
  { does: 'fill', seconds: minutes(random, 0.8, 2), watts: between(random, 7, 10) },
];

function rinses(random: Random, times: number): Phase[] {
  return Array.from({ length: times }, (): Phase[] => [
    { does: 'drain', seconds: minutes(random, 0.7, 1.3), watts: 32 },
    { does: 'spin', seconds: minutes(random, 0.8, 2), watts: 140, towards: 260 },
    { does: 'fill', seconds: minutes(random, 0.7, 1.8), watts: 8 },
    { does: 'tumble', seconds: minutes(random, 3, 6), watts: 130, still: 0.4 },
  ]).flat();
}

const lastSpin = (random: Random): Phase[] => [
  { does: 'drain', seconds: minutes(random, 0.8, 1.5), watts: 32 },
  { does: 'spin', seconds: minutes(random, 5, 9), watts: 180, towards: between(random, 380, 620) },
  { does: 'tumble', seconds: 25, watts: 90, still: 0.3 },
];

function washes(
  random: Random,
  heat: number,
  tumble: number,
  soak = 0,
  rinsing = 2,
  state: WasherState = {},
): Phase[] {
  const heater = between(random, 1750, 2250);
  const phases = washed(random, heat, tumble, soak, rinsing, state.heater ?? heater);
  return withFaults(phases, random, state);
}

/** A limiter holds the heater off for so long at a time, s. */
const HELD_OFF = 45;

function withFaults(phases: readonly Phase[], random: Random, state: WasherState): Phase[] {
  const { on = 1, filling = 1, tries = 0, blocked = false } = state;
  const lastSpin = phases.findLastIndex(({ does }) => does === 'spin');
  const wash = phases.findIndex(({ does }) => does === 'tumble');
  const all: Phase[] = [];
  for (const [i, phase] of phases.entries()) {
    if (blocked && i > wash && phase.does === 'drain') {
      // Until its control gives up.
      return [...all, { ...phase, seconds: minutes(random, 4, 8) }];
    }
    if (phase.does === 'fill') all.push({ ...phase, seconds: filling * phase.seconds });
    else if (phase.does === 'heat' && on < 1) {
      const held = (HELD_OFF * on) / (1 - on);
      for (let left = phase.seconds; left > 0; left -= held) {
        all.push({ ...phase, seconds: Math.min(left, held) });
        all.push({ does: 'tumble', seconds: HELD_OFF, watts: 110, still: 0.4 });
      }
    } else {
      for (let k = 0; i === lastSpin && k < tries; k++) {
        all.push({ does: 'spin', seconds: 55 + 30 * random(), watts: 140, towards: 190 });
        all.push({ does: 'tumble', seconds: 30 + 30 * random(), watts: 110, still: 0.4 });
      }
      all.push(phase);
    }
  }
  return all;
}

function washed(
  random: Random,
  heat: number,
  tumble: number,
  soak: number,
  rinsing: number,
  heater: number,
): Phase[] {
  return [
    ...fills(random),
    { does: 'tumble', seconds: minutes(random, 2, 4), watts: 120, still: 0.4 },
    ...(soak ? [{ does: 'soak', seconds: soak, watts: 4.5 } as const] : []),
    ...(heat ? [{ does: 'heat', seconds: heat, watts: heater } as const] : []),
    { does: 'tumble', seconds: tumble, watts: between(random, 95, 150), still: 0.35 },
    ...rinses(random, rinsing),
    ...lastSpin(random),
  ];
}

function dries(random: Random, heater: number, length: number): Phase[] {
  const motor = between(random, 170, 240);
  const cycling = Math.round(length * between(random, 0.1, 0.2));
  const turns = Math.max(1, Math.floor(cycling / 150));
  return [
    { does: 'dry', seconds: length - cycling, watts: heater + motor },
    // At its end the thermostat holds the heat off again and again.
    ...Array.from({ length: turns }, (): Phase[] => [
      { does: 'cool', seconds: 85, watts: motor },
      { does: 'dry', seconds: 65, watts: heater + motor },
    ]).flat(),
    { does: 'cool', seconds: minutes(random, 4, 9), watts: motor },
  ];
}

/** Tumbles against creases once a programme is over, until somebody opens the door. */
export const tailOf = (random: Random): Phase[] =>
  Array.from({ length: Math.round(between(random, 2, 9)) }, (): Phase[] => [
    { does: 'rest', seconds: minutes(random, 2.5, 9), watts: 2.5 },
    {
      does: 'turn',
      seconds: Math.round(between(random, 12, 60)),
      watts: between(random, 120, 200),
    },
  ]).flat();

/** The phases of a programme, another each time. @param random 0 to 1 @param state of a washer */
export function programme(kind: StandIn, random: Random, state: WasherState = {}): Phase[] {
  switch (kind) {
    case 'cotton':
      return washes(random, minutes(random, 7, 14), minutes(random, 25, 45), 0, 2, state);
    case 'hot':
      return washes(random, minutes(random, 22, 38), minutes(random, 30, 50), 0, 3, state);
    case 'cold':
      return washes(random, 0, minutes(random, 14, 26), 0, 2, state);
    case 'quick':
      return washes(random, minutes(random, 3, 5), minutes(random, 6, 9), 0, 1, state);
    case 'soak':
      return washes(
        random,
        minutes(random, 7, 14),
        minutes(random, 25, 45),
        minutes(random, 6, 10.5),
        2,
        state,
      );
    case 'vented':
      return dries(random, between(random, 2000, 5400), minutes(random, 35, 75));
    case 'condenser':
      return dries(random, between(random, 1900, 2400), minutes(random, 70, 120));
    case 'heat-pump': {
      const compressor = between(random, 420, 620);
      return [
        {
          does: 'dry',
          seconds: minutes(random, 12, 18),
          watts: 0.6 * compressor,
          towards: compressor,
        },
        {
          does: 'dry',
          seconds: minutes(random, 70, 130),
          watts: compressor,
          towards: 1.1 * compressor,
        },
        { does: 'cool', seconds: minutes(random, 4, 8), watts: 150 },
      ];
    }
    case 'wash-and-dry':
      return [
        ...washes(random, minutes(random, 7, 14), minutes(random, 20, 30)),
        ...dries(random, between(random, 1100, 1600), minutes(random, 70, 120)),
      ];
  }
}

/** What a drum's motor takes while it stands still in between, W; seconds to and fro. */
const STILL = 6;
const TO_AND_FRO = 18;

/** Mean watts of a phase, what it stands still counted in. */
export const meanOf = ({ watts, towards = watts, still = 0 }: Phase): number =>
  ((watts + towards) / 2) * (1 - still) + STILL * still;

/** Watts of a phase so many seconds into it. */
export function wattsIn({ watts, towards = watts, seconds, still }: Phase, into: number): number {
  const now = watts + (towards - watts) * (into / seconds);
  return still !== undefined && into % TO_AND_FRO < TO_AND_FRO * still ? STILL : now;
}
