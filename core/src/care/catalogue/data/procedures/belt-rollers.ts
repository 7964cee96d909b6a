import type { Procedure } from '../../types.js';

/** Common practice. What can be told of belt and rollers without opening the machine. */
export const BELT_ROLLERS: Procedure = {
  task: 'belt-rollers',
  fetch: [{ what: 'Your ears' }, { what: 'A torch' }],
  steps: [
    {
      id: 'turn-drum',
      acts: { at: 'inside' },
      do: 'Open the door and turn the drum by hand, a full turn each way.',
      why: 'It tells belt and rollers apart without a screw turned.',
      look: 'Even, with some drag. No drag at all: the belt is off or broken.',
      hazards: ['belt-pinch'],
    },
    {
      id: 'lift',
      acts: { at: 'inside' },
      do: 'Lift the drum’s front edge a little.',
      why: 'Play there means worn rollers or glides.',
      look: 'A few millimetres at most.',
    },
    {
      id: 'listen-turn',
      acts: { at: 'inside' },
      do: 'Turn it slowly and listen, with the door open.',
      why: 'A flat spot thumps once a turn, a dry roller squeals.',
      look: 'Note what you hear.',
    },
    {
      id: 'found',
      acts: { at: 'apart' },
      do: 'Note how it is: quiet is clear, a squeal or a thump at every turn is heavy.',
      why: 'What you choose here decides when it is due next.',
      note: 'grade',
    },
  ],
  putBack: [
    {
      id: 'door-shut',
      acts: { at: 'drum' },
      do: 'Shut the door again.',
      why: 'The lamp in the drum stays on otherwise.',
    },
  ],
  proof: [
    {
      id: 'run-listen',
      acts: { at: 'outside' },
      later: true,
      do: 'Listen to the next load for its first minute.',
      why: 'Under load it is heard best.',
      look: 'An even hum. A new squeal or thump: have belt and rollers looked at by somebody trained.',
    },
  ],
};
