import type { Procedure } from '../../types.js';

/** Common practice. The inside of the housing. On gas, or where unsure, by a professional. */
export const CABINET: Procedure = {
  task: 'cabinet',
  fetch: [
    { what: 'A screwdriver' },
    { what: 'A vacuum cleaner with a crevice nozzle' },
    { what: 'A soft brush' },
    { what: 'A torch' },
    { what: 'Work gloves' },
    { what: 'A cup for the screws' },
  ],
  steps: [
    {
      id: 'gas-stop',
      do: 'Gas dryer: stop here, leave the panels on, and have it done with the yearly service.',
      why: 'Burner and valve are inside, and they are work for a licensed fitter.',
      look: 'Set the gas valve and everything else back as it was.',
      hazards: ['gas-professional'],
      when: { energy: ['gas'] },
      note: 'note',
    },
    {
      id: 'gas-unsure',
      do: 'If you are not sure that this dryer is electric, stop here and have it done by a professional.',
      why: 'Burner and valve would be inside.',
      look: 'A second pipe with a valve at the back means gas.',
      hazards: ['gas-professional'],
      when: { energy: ['unknown'] },
    },
    {
      id: 'panel-off',
      do: 'Take the rear panel off: screws round the edge, kept in the cup.',
      why: 'Blower and heater housing are behind it.',
      look: 'Look first: scorch marks or melted plastic mean stop and call a professional.',
      hazards: ['inside-panels', 'sharp-metal'],
      when: { energy: ['electric', 'unknown'] },
    },
    {
      id: 'found',
      do: 'Note how much lint lies inside, before you vacuum.',
      why: 'The grade moves the next date.',
      look: 'Dust: light. A layer on the floor: moderate. Round the heater: heavy. Gas: as the professional tells you.',
      note: 'grade',
    },
    {
      id: 'vacuum-in',
      do: 'Vacuum the floor, round the blower and round the heater housing, touching no wire.',
      why: 'What lies by the heater is what catches fire.',
      look: 'Brush loose, then vacuum. Never pull at a wire.',
      hazards: ['inside-panels', 'lint-burns'],
      when: { energy: ['electric', 'unknown'] },
    },
    {
      id: 'empty-vacuum',
      do: 'Empty the vacuum cleaner outdoors.',
      why: 'Warm lint glows on unseen.',
      hazards: ['lint-burns'],
      when: { energy: ['electric', 'unknown'] },
    },
  ],
  putBack: [
    {
      id: 'panel-on',
      do: 'Put the rear panel back with all its screws.',
      why: 'It keeps hands from the belt, and the air on its way.',
      look: 'No screw left in the cup.',
      when: { energy: ['electric', 'unknown'] },
    },
    {
      id: 'gas-as-was',
      do: 'See that nothing was left open or moved.',
      why: 'The dryer goes back as the professional left it.',
      when: { energy: ['gas'] },
    },
  ],
  proof: [
    {
      id: 'smell',
      do: 'Run a short load and stay by it.',
      why: 'A burnt smell in the first minutes comes from lint left behind.',
      look: 'No smell but warm cloth. Smoke or a smell that stays: off, plug out, and leave it off.',
    },
  ],
};
