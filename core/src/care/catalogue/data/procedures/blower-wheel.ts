import type { Procedure } from '../../types.js';

/** Common practice. The wheel that moves the air, cleaned through the opening of the screen housing. */
export const BLOWER_WHEEL: Procedure = {
  task: 'blower-wheel',
  fetch: [
    { what: 'A screwdriver' },
    { what: 'A stiff wire with a small hook' },
    { what: 'A vacuum cleaner with a crevice nozzle' },
    { what: 'A torch' },
    { what: 'Two cups for the screws' },
  ],
  steps: [
    {
      id: 'gas-unsure',
      acts: { at: 'outside' },
      do: 'If you are not sure that this dryer is electric, stop here and have it done by a professional.',
      why: 'Blower and cabinet of a gas dryer are a professional’s: burner and gas valve sit beside them.',
      look: 'A second pipe with a valve at the back means gas.',
      hazards: ['gas-professional'],
      when: { energy: ['unknown'] },
    },
    {
      id: 'housing-off',
      acts: { at: 'inside', does: { screen: 'out', housing: 'off' } },
      do: 'Take the lint screen out and unscrew its housing. Keep long and short screws in different cups.',
      why: 'A long screw in a short hole meets the drum.',
      look: 'If the manual shows no way to the blower from here, stop, and enter it under the machine.',
      hazards: ['sharp-metal', 'inside-panels'],
    },
    {
      id: 'found',
      acts: { at: 'inside', needs: { housing: ['off'] } },
      do: 'Turn the drum by hand, look at the wheel, and note how full its vanes are.',
      why: 'What you choose here decides when it is due next.',
      look: 'Shine along the vanes. Dust: light. Felt in some of them: heavy. In most: blocked.',
      note: 'grade',
    },
    {
      id: 'hook',
      acts: { at: 'inside', needs: { housing: ['off'] }, cleans: true },
      do: 'Hook the lint out of each vane, turning the drum by hand to bring up the next.',
      why: 'A wheel cleaned on one side only is out of balance and rumbles worse.',
      look: 'Twenty or so, in fifteen to twenty minutes. Count the vanes, or mark the first.',
      hazards: ['belt-pinch'],
    },
    {
      id: 'vacuum-wheel',
      acts: { at: 'inside', needs: { housing: ['off'] } },
      do: 'Vacuum what came loose.',
      why: 'It would go straight back between the vanes.',
      hazards: ['lint-burns'],
    },
    {
      id: 'turn-free',
      acts: { at: 'inside', needs: { housing: ['off'] } },
      do: 'Before a screw goes back: turn the drum a few times and try it by ear.',
      why: 'A pebble, a coin or a vane that rubs is heard now, and costs nothing while everything is open.',
      look: 'The wheel turns freely and quietly. If not: hook once more.',
    },
  ],
  putBack: [
    {
      id: 'housing-on',
      acts: { at: 'inside', does: { housing: 'on' } },
      do: 'Put the housing back with the right screws in the right holes.',
      why: 'A gap here lets lint past the screen.',
    },
    {
      id: 'screen-in',
      acts: {
        at: 'slot',
        needs: { housing: ['on'] },
        does: { screen: 'in' },
        touches: 'screen',
        waits: true,
      },
      do: 'Push the lint screen in until it sits.',
      why: 'The dryer must never run without it.',
      hazards: ['no-screen'],
    },
  ],
  proof: [
    {
      id: 'by-ear',
      acts: { at: 'outside', runs: 'air' },
      do: 'Run it empty for a minute and listen.',
      why: 'An even hum and a strong stream at the hood are the proof.',
      look: 'Still a rumble: some vanes are still full. Do it again.',
    },
  ],
};
