import type { Procedure } from '../../types.js';

/** Common practice. The heat exchanger of a condenser dryer; a heat pump's only by its manual. */
export const HEAT_EXCHANGER: Procedure = {
  task: 'heat-exchanger',
  fetch: [
    { what: 'A towel' },
    { what: 'A soft brush' },
    { what: 'A vacuum cleaner with a brush nozzle' },
    { what: 'Gloves' },
    { what: 'A shower or hose, and a bath or large tub', when: { kinds: ['condenser-dryer'] } },
    { what: 'The machine’s manual', when: { kinds: ['heat-pump-dryer'] } },
  ],
  steps: [
    {
      id: 'manual',
      do: 'Open the manual at the page on the heat exchanger, and see whether yours comes out, is brushed in place, or cleans itself.',
      why: 'Heat-pump dryers differ here, and what is sealed must stay sealed.',
      look: 'If it cleans itself, wipe what you can reach and note it.',
      hazards: ['heat-pump-manual'],
      when: { kinds: ['heat-pump-dryer'] },
    },
    {
      id: 'flap',
      do: 'Lay the towel down and open the flap at the bottom of the front.',
      why: 'Some water comes with it.',
    },
    {
      id: 'catches',
      do: 'Turn the catches and draw the heat exchanger straight out.',
      why: 'Straight, so that its seals are not dragged.',
      look: 'Note which way up it sits: there are arrows.',
      hazards: ['sharp-fins'],
      when: { kinds: ['condenser-dryer'] },
    },
    {
      id: 'found',
      do: 'Note how much of the fins is matted, before you clean them.',
      why: 'The grade moves the next date.',
      look: 'A few threads: light. A third covered: moderate. A grey felt: heavy. No light through it: blocked.',
      note: 'grade',
    },
    {
      id: 'dry-first',
      do: 'Scrape and vacuum the dry fluff off, along the fins and never across them.',
      why: 'Dry before wet: wetted fluff turns to felt and stays.',
      look: 'Bent fins stay bent: light pressure.',
      hazards: ['sharp-fins'],
    },
    {
      id: 'shower',
      figure: 'exchanger',
      do: 'Put the plug in the bath and shower through the fins from both sides, until the water runs clear.',
      why: 'With the plug in you lift the fluff out of the bath instead of sending it down the drain.',
      look: 'Hold it to the light: every channel is open.',
      when: { kinds: ['condenser-dryer'] },
    },
    {
      id: 'brush-in-place',
      do: 'Brush the fins that you can reach, downwards, and wipe up with a damp cloth, as the manual says.',
      why: 'Water sprayed into a heat pump reaches what must stay dry.',
      look: 'Light shines between the fins.',
      hazards: ['heat-pump-manual'],
      when: { kinds: ['heat-pump-dryer'] },
    },
    {
      id: 'shake',
      do: 'Shake the water out and stand it on its end to drain.',
      why: 'Water left in it drips on the floor of the dryer.',
      timer: { minutes: 15, label: 'Draining', optional: true },
      when: { kinds: ['condenser-dryer'] },
    },
    {
      id: 'seat',
      do: 'Wipe the seat, the seals and the space behind with a damp cloth.',
      why: 'One strip of fluff on the seal lets damp air into the room.',
      look: 'The seals lie flat and are whole.',
    },
  ],
  putBack: [
    {
      id: 'slide-in',
      do: 'Slide it in the right way up, by the arrows, without force, and turn the catches home.',
      why: 'The wrong way round it does not seal.',
      look: 'Both catches are at their stops.',
      when: { kinds: ['condenser-dryer'] },
    },
    {
      id: 'close-flap',
      do: 'Close the flap until it clicks, and take the towel away.',
      why: 'An open flap stops many dryers from starting.',
    },
  ],
  proof: [
    {
      id: 'next-load',
      later: true,
      do: 'Watch the next load: how long it takes, and whether the room stays dry.',
      why: 'Shorter drying and dry windows are the proof.',
      look: 'A reminder lamp may stay on until the next programme starts. That is no fault.',
      reading: 'drying-minutes',
    },
  ],
};
