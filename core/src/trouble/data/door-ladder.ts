import { spoken } from '../../regions/spoken.js';

/*
 * A door that stays locked, as a ladder: from the cheapest rung up. What can free the door comes only once
 * the level of the water is known, and with water above the sill only after it was let out. Common practice.
 */

export interface Rung {
  id: string;
  do: string;
  why: string;
  minutes: number;
  hazards?: readonly string[];
  /** The door can come free by it. */
  frees?: true;
  /** Lets the water out. */
  drains?: true;
  /** Where it is done at a machine built so; absent: at any. */
  access?: readonly ('front' | 'behind')[];
}

export const DOOR_RUNGS = spoken({
  level: {
    id: 'level',
    do: 'Look through the glass with a torch: where does the water stand?',
    why: 'Whatever frees the door lets out what stands behind it.',
    minutes: 1,
  },
  cut: {
    id: 'cut',
    do: 'Stop the cycle, shut the tap, and pull the plug; out of reach or wet: its circuit breaker.',
    why: 'Nobody works at a full machine that could start, or go on filling.',
    minutes: 2,
    hazards: ['electric'],
  },
  cool: {
    id: 'cool',
    do: 'Let it cool: wait until tomorrow, or measure the first cup you let out: under 40 °C (104 °F). After a hot cycle a full drum takes three to eight hours, and double glass hides it.',
    why: 'It scalds long after it looks still.',
    minutes: 5,
    hazards: ['scald'],
  },
  measure: {
    id: 'measure',
    do: 'Measure the height of the water at the glass: it tells litres, buckets and minutes.',
    why: 'You want to know how often to carry before the first drop runs.',
    minutes: 2,
  },
  'drain-front': {
    id: 'drain-front',
    do: 'Let the water out below, half a tray at a time: by the thin hose beside the filter, or by the filter opened one turn.',
    why: 'It is the slow way, and the only one that can be stopped at any time.',
    minutes: 30,
    hazards: ['scald', 'flood', 'electric'],
    drains: true,
    access: ['front'],
  },
  'drain-behind': {
    id: 'drain-behind',
    do: 'Two of you: reach behind without moving the machine, and lift the drain hose off its pipe with its end held high. Lower it into a bucket, and raise it again at two thirds. No room to reach: a service technician pumps it out.',
    why: 'The filter is out of reach from the front, and a full machine is never moved. Raised above the water, the end stops.',
    minutes: 45,
    hazards: ['full-drum', 'scald', 'electric'],
    drains: true,
    access: ['behind'],
  },
  wait: {
    id: 'wait',
    do: 'Wait two to five minutes with the machine switched off, and try the handle gently.',
    why: 'The lock opens only when it has cooled, and some wait for the drum to stand still.',
    minutes: 5,
    frees: true,
  },
  reset: {
    id: 'reset',
    do: 'Try the maker’s reset sequence, as the manual has it. Often it is a press of some seconds on one or two buttons, or a short spin and drain.',
    why: 'The control may think that a cycle still runs.',
    minutes: 4,
    frees: true,
  },
  'plug-out': {
    id: 'plug-out',
    do: 'Pull the plug for five minutes, then try the handle, and plug it in again.',
    why: 'Without power the lock falls open after a while.',
    minutes: 6,
    frees: true,
  },
  filter: {
    id: 'filter',
    do: 'Clean the pump filter.',
    why: 'A machine that cannot drain keeps its door shut.',
    minutes: 25,
    hazards: ['electric', 'scald', 'flood'],
    drains: true,
  },
  'plug-out-again': {
    id: 'plug-out-again',
    do: 'With the drum empty, plug out for five minutes once more, and try the handle.',
    why: 'Now nothing keeps it shut but the lock itself.',
    minutes: 6,
    frees: true,
  },
  pull: {
    id: 'pull',
    do: 'Only with the water below the sill, cool, plug out and the drum still: pull the emergency cord gently, downwards. It hangs behind the filter’s flap or the lower panel, as the manual shows.',
    why: 'It is made for this. What does not give to a gentle pull is not its cord.',
    minutes: 10,
    hazards: ['electric', 'scald', 'sharp-metal'],
    frees: true,
  },
  call: {
    id: 'call',
    do: 'Call a service technician. Never force the handle or lever the door.',
    why: 'The hook, the hinge and the glass break before the lock does.',
    minutes: 120,
  },
} as const satisfies Record<string, Rung>);
export type RungId = keyof typeof DOOR_RUNGS;
