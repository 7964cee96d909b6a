import { VENTED } from '../../../../model/vocabulary.js';
import type { Procedure } from '../../types.js';

/** Common practice. What to ask of the yearly service, and what to write down. */
export const SERVICE: Procedure = {
  task: 'service',
  fetch: [{ what: 'The machine’s papers' }, { what: 'Its record, printed or on the phone' }],
  steps: [
    {
      id: 'call',
      acts: { at: 'apart', does: { service: 'called' } },
      do: 'Ask an authorised service to come, and name the machine and what you have noticed.',
      why: 'Belts, bearings, gas, wiring and pumps need training and tools.',
      look: 'Gas line, burner, refrigerant and mains wiring: only they.',
    },
    {
      id: 'gas-fitter',
      acts: { at: 'apart', needs: { service: ['called'] } },
      do: 'Say that it burns gas, and ask for a licensed gas fitter.',
      why: 'Burner, valve and line are tested for tightness only by them.',
      hazards: ['gas'],
      when: { kinds: VENTED, energy: ['gas', 'unknown'] },
    },
    {
      id: 'show',
      acts: { at: 'apart', needs: { service: ['called'] } },
      do: 'Show the record: what was cleaned, when, and the figures.',
      why: 'It saves the first half hour of looking.',
    },
    {
      id: 'ask',
      acts: { at: 'apart', needs: { service: ['called'] } },
      do: 'Ask for hoses, belt, rollers, bearings, pump, door lock and earth to be looked at.',
      why: 'A list asked for is a list done.',
      look: 'On gas: burner, its tightness, blower and cabinet, the connector’s age, and the room’s air.',
    },
    {
      id: 'write',
      acts: { at: 'apart', needs: { service: ['called'] } },
      do: 'Note what was found, what was replaced, and what they would watch.',
      why: 'It is worth as much as the work.',
      note: 'note',
    },
  ],
  putBack: [
    {
      id: 'back-service',
      acts: { at: 'outside' },
      do: 'See that it stands level and that hoses, gas and plug are as before.',
      why: 'People in a hurry leave a tap shut.',
    },
  ],
  proof: [
    {
      id: 'first-load',
      acts: { at: 'outside' },
      later: true,
      do: 'Stay near for the first load.',
      why: 'What was not tightened shows itself then.',
      look: 'No drip, no smell, no new noise.',
    },
  ],
};
