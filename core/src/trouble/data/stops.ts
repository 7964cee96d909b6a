import type { MachineKind } from '../../model/vocabulary.js';
import type { StopRule } from './types.js';
import { ALL, DRYING, FRONT, WASHERS } from './kinds.js';
import { spoken } from '../../regions/spoken.js';

/**
 * Before any suspect is shown. Common practice; local emergency services and the manual come first.
 *
 * A hot load: taken out and spread at once, never left stopped in the drum (IEC 60335-2-11,
 * instructions, from memory); a smoulder is not given air.
 */
export const STOP_RULES: readonly StopRule[] = spoken([
  {
    id: 'smoke',
    short: 'smoke or flames',
    say: 'Smoke, flames, a glow, or a burning smell that does not end at once',
    kinds: ALL,
    now: 'Get everybody out first, and close the door of the room. Leave the door of the machine shut: air feeds a smoulder. Pull the plug or switch off its breaker only if it lies on your way out, clear of smoke.',
    shuts: ['breaker'],
    call: 'Call the fire service from outside.',
    calls: ['emergency'],
  },
  {
    id: 'carbon-monoxide',
    short: 'carbon monoxide',
    say: 'A carbon monoxide alarm sounds, or somebody has a headache, dizziness or sickness while anything burns gas',
    kinds: ALL,
    now: 'Everybody out into the open air, now. You cannot smell it, and it makes you too weak to leave. Leave doors open behind you on your way.',
    call: 'Call the emergency number from outside, and say “carbon monoxide”. Go back in only when the fire service or a gas fitter says so.',
    calls: ['emergency', 'gas'],
  },
  {
    id: 'gas-smell',
    short: 'a smell of gas',
    say: 'A smell of gas',
    kinds: ALL,
    now: 'Leave at once. Touch no switch, no plug, no phone indoors, light nothing. Leave doors open behind you.',
    shuts: ['gasValve'],
    call: 'Call the gas emergency number from outside.',
    calls: ['gas', 'emergency'],
  },
  {
    id: 'fumes',
    short: 'stinging fumes',
    say: 'Fumes that sting or choke, after a cleaner or two',
    kinds: ALL,
    now: 'Out of the room, everybody, and into fresh air. Open a window only if it lies on your way. Do not go back to rinse or to stop the machine: power off from outside the room, if you can.',
    shuts: ['breaker'],
    call: 'Short of breath, a cough that stays, burning eyes: call the emergency number. Feeling well: call the poison centre all the same; harm can come hours later.',
    calls: ['emergency', 'poison'],
  },
  {
    id: 'refrigerant',
    short: 'a hiss or oil',
    say: 'A hiss from inside, or oil below it',
    kinds: ['heat-pump-dryer'],
    now: 'Its sealed circuit may hold propane. Touch no switch and no plug, light nothing. Open a window if it lies on your way, and get everybody out.',
    shuts: ['breaker'],
    call: 'Call a refrigeration technician; with a smell or a fire, the fire service from outside. Do not use it until then.',
    calls: ['emergency'],
  },
  {
    id: 'shock',
    short: 'a shock',
    say: 'A shock or a tingle when touching it',
    kinds: ALL,
    now: 'Do not touch it again. Somebody hangs on it: do not touch them either. Switch off its circuit breaker first.',
    shuts: ['breaker'],
    call: 'After a faint, a burn, pain, numbness or a racing heart, or when pregnant: call the emergency number. Call an electrician before the machine is used again.',
    calls: ['emergency'],
  },
  {
    id: 'breaker',
    short: 'the breaker trips',
    say: 'The breaker or the RCD tripped twice',
    kinds: ALL,
    now: 'Leave it off and unplug the machine.',
    shuts: ['breaker'],
    call: 'Call an electrician or a service technician.',
  },
  {
    id: 'water-socket',
    short: 'water near a socket',
    say: 'Water near a socket or a plug',
    kinds: ALL,
    now: 'Do not step into the water. Switch its circuit off only where you can reach the breaker dry, then shut the tap. The panel may be in the wet room: then leave it, and shut the stop valve of the house.',
    shuts: ['breaker', 'stopValve'],
    call: 'Breaker out of dry reach: call the fire service or your electricity company. Call an electrician before you plug anything in there.',
    calls: ['emergency'],
  },
  {
    id: 'scorched',
    short: 'scorched clothes',
    say: 'Scorched clothes',
    kinds: DRYING,
    now: 'Smoke or a glow: keep the door shut, everybody out, call the fire service. Neither: stop it, take everything out at once, spread it outdoors, then unplug it.',
    call: 'Call a service technician; do not use it until then.',
    calls: ['emergency'],
  },
  {
    id: 'hurts-hot',
    short: 'too hot to touch',
    say: 'The dryer is so hot that it hurts to touch',
    kinds: DRYING,
    now: 'Smoke, a glow or a smell of burning: keep the door shut, everybody out, call the fire service. None of them: stop it, take everything out at once, spread it outdoors, then unplug it and let it cool.',
    call: 'If it happens again after the air line was cleaned, call a service technician.',
    calls: ['emergency'],
  },
  {
    id: 'over-sill',
    short: 'water above the sill',
    say: 'Water stands above the sill of the door',
    kinds: FRONT,
    now: 'Do not open the door, and do not pull at it. Stop the cycle, shut the tap, and pull the plug; wet or out of reach: its circuit breaker. After a hot cycle it scalds, and double glass hides it. Wait until tomorrow, or measure the first cup you let out: under 40 °C (104 °F).',
    shuts: ['breaker', 'stopValve'],
    call: 'If water keeps coming in with the machine off, shut the main tap and call a plumber.',
    then: { say: 'Power and tap are off: let the water out', finding: 'wont-drain' },
  },
  {
    id: 'flooding',
    short: 'water runs out',
    say: 'Water keeps running out on the floor',
    kinds: WASHERS,
    now: 'Do not step into the water. Switch its circuit off only where you can reach the breaker dry, then shut the machine’s tap. One of them is out of dry reach: shut the stop valve of the house.',
    shuts: ['breaker', 'stopValve'],
    call: 'If it does not stop, shut the main tap and call a plumber. Breaker out of dry reach: call the fire service or your electricity company.',
  },
]);

/** The stop rules of a kind of machine: what is asked before anything else. */
export const stopsOf = (kind: MachineKind): StopRule[] =>
  STOP_RULES.filter(({ kinds }) => kinds.includes(kind));

/** @throws RangeError for an id that no stop rule has */
export function stopById(id: string): StopRule {
  const rule = STOP_RULES.find((one) => one.id === id);
  if (!rule) throw new RangeError(`No stop rule has the id "${id}".`);
  return rule;
}
