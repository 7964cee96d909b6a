import type { Procedure } from '../../types.js';

/** Common practice. The water tank of a dryer that collects its water. */
export const TANK_EMPTY: Procedure = {
  task: 'tank-empty',
  fetch: [{ what: 'Nothing; a sink near by' }],
  steps: [
    {
      id: 'draw',
      acts: { at: 'outside', does: { tank: 'out' } },
      do: 'Draw the tank out level, with both hands.',
      why: 'A full tank holds a few litres and spills when tipped.',
    },
    {
      id: 'pour',
      acts: { at: 'apart', needs: { tank: ['out'] } },
      do: 'Pour it out into the sink and look at the water.',
      why: 'Not for drinking, for pets or for an iron: it holds lint, detergent and germs. Lint in it means that a screen lets some past.',
      look: 'Clear, or with a few threads.',
      note: 'grade',
    },
    {
      id: 'rinse',
      acts: { at: 'apart', needs: { tank: ['out'] } },
      do: 'Rinse the tank and wipe the mesh in its mouth, if it has one.',
      why: 'A slimy mouth drips back into the sump.',
    },
  ],
  putBack: [
    {
      id: 'tank-in',
      acts: { at: 'outside', does: { tank: 'in' } },
      do: 'Push the tank in until it clicks.',
      why: 'A tank that is not seated stops the dryer and lights its lamp.',
      look: 'It sits flush.',
    },
  ],
  proof: [
    {
      id: 'lamp',
      acts: { at: 'outside' },
      later: true,
      do: 'Look at the tank lamp when the next cycle starts.',
      why: 'It goes out when the tank is empty and seated.',
      look: 'The lamp is dark.',
    },
  ],
};
