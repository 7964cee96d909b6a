import type { Procedure } from '../../types.js';

/** Common practice. The little mesh behind the fill hose, and the flow of the tap. */
export const INLET_SCREEN: Procedure = {
  task: 'inlet-screen',
  fetch: [
    { what: 'A bucket' },
    { what: 'Pliers' },
    { what: 'An old toothbrush' },
    { what: 'A dry cloth' },
    { what: 'A watch that shows seconds' },
    { what: 'Dry paper' },
    {
      what: 'Household vinegar, in case of scale',
      uses: { supply: 'vinegar', amount: 100, share: 0.4 },
      holds: 'acid',
    },
    {
      what: 'A new hose washer, if the old one is hard',
      uses: { supply: 'sealing-washer', amount: 1, share: 0.3 },
    },
  ],
  finds: ['sand', 'rust', 'scale', 'rubber crumbs'],
  steps: [
    {
      id: 'fill-hose-off',
      acts: { at: 'behind', needs: { tap: ['shut'] }, does: { fillHose: 'off', inletTight: 'no' } },
      do: 'Hold the bucket under the joint and unscrew the hose from the machine, anticlockwise.',
      why: 'A cup of water is still in it.',
      look: 'The tap is shut: no more than that comes.',
      hazards: ['water-pressure'],
    },
    {
      id: 'flow',
      acts: { at: 'behind', needs: { fillHose: ['off'], tap: ['shut'] } },
      do: 'Hose in the bucket: open the tap for a counted ten seconds, shut it, and measure the litres.',
      why: 'It tells the tap from the screen. Below about 8 litres (2 gal) a minute look to the tap and its own screen first; your manual’s pressure range comes first.',
      look: 'Hold the hose firmly: it jumps. The hot hose runs hot. A hose with a valve box gives nothing without power: leave this out, and never soak the box.',
      reading: 'fill-litres',
      hazards: ['hot-hose'],
    },
    {
      id: 'dry-screen',
      acts: { at: 'behind', needs: { fillHose: ['off'] }, does: { inletScreen: 'out' } },
      figure: 'inlet',
      do: 'Dry the little screen so that the pliers grip, and pull it straight out.',
      why: 'Wet plastic slips and tears.',
      look: 'Grip the rib in its middle, not the mesh.',
    },
    {
      id: 'found',
      acts: { at: 'apart' },
      do: 'Note how it looks before you clean it.',
      why: 'What you choose here decides when it is due next.',
      look: 'Clean mesh: clear. A few grains: light. Half closed: heavy.',
      note: 'grade',
    },
    {
      id: 'brush-screen',
      acts: { at: 'apart', needs: { inletScreen: ['out'] }, touches: 'inletScreen', cleans: true },
      do: 'Brush it dry. White scale: lay it in vinegar for a few minutes.',
      why: 'Sand comes off dry, scale only with acid. Never blow it through by mouth.',
      look: 'Light through every mesh. A hole: replace it.',
      hazards: ['acid'],
      brings: { ask: 'Do you lay it in vinegar?', products: ['vinegar'] },
    },
    {
      id: 'screen-rinse',
      acts: { at: 'apart', needs: { inletScreen: ['out'] }, touches: 'inletScreen' },
      do: 'Rinse the little screen under the tap.',
      why: 'Loose grains and vinegar stay out of the valve.',
      look: 'Water runs through it freely.',
      rinses: 'station',
    },
  ],
  putBack: [
    {
      id: 'screen-level',
      acts: {
        at: 'behind',
        needs: { inletScreen: ['out'], fillHose: ['off'] },
        does: { inletScreen: 'in' },
      },
      figure: 'inlet',
      do: 'Push the screen back level, as far as it was.',
      why: 'Tilted it lets grit into the valve.',
    },
    {
      id: 'hose-hand',
      acts: {
        at: 'behind',
        needs: { inletScreen: ['in'], fillHose: ['off'] },
        does: { fillHose: 'on' },
      },
      do: 'Screw the hose on by hand, straight, with its washer in place.',
      why: 'A crossed thread and force are what make it leak. Damp at the paper later: a quarter turn with pliers, and no more.',
      look: 'It turns easily for three turns, or it is crossed: off and again. Two hoses: each on its own valve, hot on hot.',
    },
  ],
  proof: [
    {
      id: 'fills',
      acts: { at: 'outside', runs: 'rinse' },
      do: 'Start a rinse and listen to it fill.',
      why: 'A strong hiss and no stutter are the proof.',
      look: 'The joint stays dry.',
    },
  ],
};
