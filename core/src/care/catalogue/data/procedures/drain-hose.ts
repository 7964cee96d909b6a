import type { Procedure } from '../../types.js';

/** Common practice. Drain hose, standpipe or spigot, and the trap below. */
export const DRAIN_HOSE: Procedure = {
  task: 'drain-hose',
  fetch: [
    { what: 'A bucket' },
    { what: 'A tray' },
    { what: 'Rubber gloves' },
    { what: 'An old bottle brush' },
    { what: 'A telephone with its lamp' },
    { what: 'Dry paper' },
  ],
  finds: ['sludge', 'lint', 'coin', 'sock'],
  steps: [
    {
      id: 'hose-lift',
      acts: {
        at: 'pipe',
        needs: { power: ['off'] },
        does: { drainHose: 'bucket', drainTight: 'no' },
      },
      figure: 'standpipe',
      do: 'Draw the hose out of the standpipe, or off its spigot, and let it run into the bucket.',
      why: 'A litre stands in its low loop.',
      look: 'Note how deep it was in: it must go back as it was.',
      when: { drainsTo: ['standpipe', 'floor-drain', 'unknown'] },
    },
    {
      id: 'hose-unclip',
      acts: {
        at: 'pipe',
        needs: { power: ['off'] },
        does: { drainHose: 'bucket', drainTight: 'no' },
      },
      do: 'Unhook the hose from the sink, or loosen the clip at the spigot, and let it run into the bucket.',
      why: 'A litre stands in its low loop.',
      look: 'Note how it hung: it must go back as it was.',
      when: { drainsTo: ['sink'] },
    },
    {
      id: 'film',
      acts: { at: 'pipe', needs: { drainHose: ['bucket'] } },
      do: 'Film down the pipe with the telephone’s lamp on.',
      why: 'What the eye cannot see, the film shows.',
      look: 'Grey sludge on the walls, or standing water near the top.',
    },
    {
      id: 'found',
      acts: { at: 'pipe', needs: { drainHose: ['bucket'] } },
      do: 'Note how much sludge there is.',
      why: 'What you choose here decides when it is due next.',
      look: 'Bare pipe: clear. A film: light. Half its width: heavy. Water stands: blocked.',
      note: 'grade',
    },
    {
      id: 'hose-flush',
      acts: { at: 'apart', needs: { drainHose: ['bucket'] }, cleans: true },
      do: 'Flush the hose through in the bath, and look at it for kinks and soft places.',
      why: 'Sludge settles in its low loop.',
      look: 'Water falls freely when you hold it low.',
    },
    {
      id: 'trap-open',
      acts: { at: 'pipe', does: { trap: 'off', drainTight: 'no' } },
      do: 'Tray under the trap. Undo its collars by hand, empty it, and scrape the sludge out.',
      why: 'Lint and soap collect at the bend.',
      look: 'Mind the ring in each collar. No trap within reach: leave it, and note so.',
      hazards: ['sink-edge'],
    },
    {
      id: 'trap-on',
      acts: { at: 'pipe', needs: { trap: ['off'] }, does: { trap: 'on' } },
      do: 'Put the trap back with its rings, collars hand tight.',
      why: 'Tools crack plastic collars.',
      look: 'Run some water: dry paper under it stays dry.',
    },
  ],
  putBack: [
    {
      id: 'hose-in',
      acts: { at: 'pipe', needs: { drainHose: ['bucket'] }, does: { drainHose: 'in' } },
      figure: 'standpipe',
      do: 'Put the hose back 15 to 30 cm (6 to 12 in) into the standpipe, in its high loop, and tie it. Never sealed, never to the bottom.',
      why: 'Forgotten, it empties the wash on the floor; too deep, it siphons.',
      look: 'Tug at it: it stays. The loop is higher than the drum’s middle.',
      when: { drainsTo: ['standpipe', 'floor-drain', 'unknown'] },
    },
    {
      id: 'hose-sink',
      acts: { at: 'pipe', needs: { drainHose: ['bucket'] }, does: { drainHose: 'in' } },
      do: 'Hook the hose over the sink or clip it on the spigot again, in its high loop.',
      why: 'Forgotten, it empties the wash on the floor.',
      look: 'Tug at it: it stays. The sink’s drain is open.',
      when: { drainsTo: ['sink'] },
    },
  ],
  proof: [
    {
      id: 'drain-watch',
      acts: { at: 'pipe', runs: 'rinse', proves: ['drain'] },
      do: 'Run a rinse and watch the pipe while it drains.',
      why: 'It must swallow all the pump gives.',
      look: 'No water rises to the rim, no gurgle. If it does: the house drain is next, with a firm that has a camera.',
      reading: 'drain-time',
    },
  ],
};
