import type { Procedure } from '../../types.js';

/** Common practice. The hose under pressure: age, bulges, joints. */
export const FILL_HOSE: Procedure = {
  task: 'fill-hose',
  fetch: [
    { what: 'A torch' },
    { what: 'Dry paper' },
    {
      what: 'A new braided hose, when it is due',
      uses: { supply: 'fill-hose', amount: 1, share: 0.1 },
    },
    { what: 'New hose washers', uses: { supply: 'sealing-washer', amount: 2, share: 0.2 } },
  ],
  steps: [
    {
      id: 'age',
      acts: { at: 'behind' },
      do: 'Find the date on the hose or remember when it was fitted.',
      why: 'Plain rubber is replaced after about five years, whatever it looks like.',
      look: 'Braided steel over it is the better kind.',
      note: 'note',
    },
    {
      id: 'along',
      acts: { at: 'behind' },
      do: 'Run your hand along the whole hose, with the tap open.',
      why: 'A bulge or a soft place comes before a burst.',
      look: 'The hose of the hot tap may be hot. A box at one end is a shut-off valve: leave it as it is. No bulge, no crack, no rust on the ferrules.',
      hazards: ['hot-hose'],
    },
    {
      id: 'paper',
      acts: { at: 'behind', needs: { tap: ['open', 'shut'] } },
      do: 'Wrap dry paper round each joint for a minute.',
      why: 'Paper shows a weep that the eye does not.',
      look: 'Dry paper.',
    },
    {
      id: 'found',
      acts: { at: 'apart' },
      do: 'Note how it is: sound is clear, damp at a joint is heavy, a bulge or crack is blocked.',
      why: 'What you choose here decides when it is due next.',
      hazards: ['water-pressure'],
      note: 'grade',
      look: 'Bulge or crack: the tap stays shut until the hose is replaced. An old hose never goes on a new machine.',
    },
    {
      id: 'tighten',
      acts: { at: 'behind', does: { inletTight: 'no' } },
      do: 'Damp joint: shut the tap, renew the washer, and tighten by hand.',
      why: 'More force splits the plastic thread.',
      hazards: ['water-pressure'],
      look: 'Still damp at the paper later: a quarter turn with pliers, and no more.',
    },
  ],
  putBack: [
    {
      id: 'no-kink',
      acts: { at: 'behind' },
      do: 'See that the hose hangs in a loose curve and is not kinked.',
      why: 'A kink today is a crack next year.',
    },
  ],
  proof: [
    {
      id: 'paper-again',
      acts: { at: 'behind', proves: ['inlet'] },
      do: 'With the tap open, wrap dry paper round the joints once more.',
      why: 'With the tap open and the machine at rest the hose has its full pressure: that is when it weeps.',
      look: 'Dry paper. Between washes the tap may stay shut: that is the surest.',
    },
  ],
};
