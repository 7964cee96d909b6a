import type { StopRule } from './types.js';
import { ALL, DRYERS, DRYING, FRONT, WASHERS } from './kinds.js';

/** Before any suspect is shown. Common practice; local emergency services and the manual come first. */
export const STOP_RULES: readonly StopRule[] = [
  {
    id: 'smoke',
    say: 'Smoke, flames, or a burning smell that does not end at once',
    kinds: ALL,
    now: 'Leave the door of the machine shut. If you can do it safely, pull the plug or switch off its breaker. Get everybody out and close the door of the room.',
    shuts: ['breaker'],
    call: 'Call the fire service from outside.',
  },
  {
    id: 'gas-smell',
    say: 'A smell of gas',
    kinds: DRYERS,
    now: 'Leave at once. Touch no switch, no plug, no phone indoors, light nothing. Leave doors open behind you.',
    shuts: ['gasValve'],
    call: 'Call the gas emergency number from outside.',
  },
  {
    id: 'shock',
    say: 'A shock or a tingle when touching it',
    kinds: ALL,
    now: 'Do not touch it again. Switch off its circuit breaker.',
    shuts: ['breaker'],
    call: 'Call an electrician before it is used again. After a shock with pain, numbness or a racing heart, call the emergency number.',
  },
  {
    id: 'breaker',
    say: 'The breaker tripped twice',
    kinds: ALL,
    now: 'Leave it off and unplug the machine.',
    shuts: ['breaker'],
    call: 'Call an electrician or a service technician.',
  },
  {
    id: 'water-socket',
    say: 'Water near a socket or a plug',
    kinds: ALL,
    now: 'Stay out of the water. Switch off the circuit at the breaker, then shut the tap.',
    shuts: ['breaker', 'stopValve'],
    call: 'Call an electrician before you plug anything in there.',
  },
  {
    id: 'scorched',
    say: 'Scorched clothes',
    kinds: DRYING,
    now: 'Stop it, take the clothes out and spread them outdoors, unplug it.',
    call: 'Call a service technician; do not use it until then.',
  },
  {
    id: 'hurts-hot',
    say: 'The dryer is so hot that it hurts to touch',
    kinds: DRYING,
    now: 'Stop it, open the door, unplug it and let it cool.',
    call: 'If it happens again after the air line was cleaned, call a service technician.',
  },
  {
    id: 'over-sill',
    say: 'Water stands above the sill of the door',
    kinds: FRONT,
    now: 'Do not open the door, and do not pull at it. Stop the programme, shut the tap, and pull the plug; wet or out of reach: its circuit breaker. It may scald: let it cool until the glass is only lukewarm.',
    shuts: ['breaker', 'stopValve'],
    call: 'If water keeps coming in with the machine off, shut the main tap and call a plumber.',
    then: { say: 'Power and tap are off: let the water out', finding: 'wont-drain' },
  },
  {
    id: 'flooding',
    say: 'Water keeps running out on the floor',
    kinds: WASHERS,
    now: 'Shut the machine’s tap. Switch its circuit off at the breaker before you step into water.',
    shuts: ['breaker', 'stopValve'],
    call: 'If it does not stop, shut the main tap and call a plumber.',
  },
];
