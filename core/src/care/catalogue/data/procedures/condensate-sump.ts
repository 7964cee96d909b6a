import type { Procedure } from '../../types.js';

/** Common practice. The sump below the heat exchanger, its pump and line, proved with a measured half litre. */
export const CONDENSATE_SUMP: Procedure = {
  task: 'condensate-sump',
  fetch: [
    { what: 'A measuring jug' },
    { what: 'A towel' },
    { what: 'A torch' },
    { what: 'Rubber gloves' },
    { what: 'A large syringe, or a rubber bulb, for pushing air' },
  ],
  steps: [
    {
      id: 'flap-sump',
      acts: {
        at: 'outside',
        needs: { cool: ['yes'] },
        does: { exchangerFlap: 'open', exchanger: 'out' },
      },
      do: 'Towel down, open the flap, and take the heat exchanger or its cover out.',
      why: 'The sump is below it.',
      look: 'As the manual shows. Heat pump: only what the manual takes out.',
      hazards: ['sharp-fins', 'heat-pump-manual'],
    },
    {
      id: 'feel',
      acts: { at: 'exchanger', needs: { exchanger: ['out'] } },
      do: 'Look and feel into the sump, and note how much sludge is in it.',
      why: 'What you choose here decides when it is due next.',
      look: 'Clean plastic: clear. Grey slime: moderate. The float or pump buried in it: blocked.',
      note: 'grade',
    },
    {
      id: 'sludge',
      acts: { at: 'exchanger', needs: { exchanger: ['out'] }, cleans: true },
      do: 'Wipe the sludge out with a cloth.',
      why: 'It goes to the pump next.',
      look: 'The float moves freely, if there is one.',
    },
    {
      id: 'blow',
      acts: { at: 'exchanger', needs: { exchanger: ['out'] } },
      do: 'Push air through the line towards the sump with the syringe, and listen.',
      why: 'Bubbles in the sump mean that the line is open.',
      look: 'A syringe, never your mouth: the water breeds germs. No bubbles: the line is kinked or clogged. Pull the clog out rather than pushing it in.',
    },
    {
      id: 'pour',
      acts: { at: 'exchanger', needs: { exchanger: ['out'] }, does: { measured: 'poured' } },
      do: 'Pour a measured half litre into the sump.',
      why: 'A known amount is what the test is measured by.',
      look: 'The plug stays out while you pour. Nothing runs out at the front.',
      hazards: ['electric'],
    },
  ],
  putBack: [
    {
      id: 'close-sump',
      acts: {
        at: 'outside',
        does: { exchangerFlap: 'shut', exchanger: 'in' },
        touches: 'exchanger',
        waits: true,
      },
      do: 'Put the heat exchanger or cover back, catches at their stops, and shut the flap.',
      why: 'An open flap stops the dryer.',
      look: 'The right way up, by the arrows.',
    },
  ],
  proof: [
    {
      id: 'pump-out',
      acts: {
        at: 'outside',
        runs: 'dry',
        needs: { measured: ['poured'] },
        does: { measured: 'none' },
      },
      do: 'Start a cycle and count the seconds until the water is pumped out.',
      why: 'The pump should run within a minute or so.',
      look: 'You hear it, and the tank or the drain gets the half litre.',
      reading: 'pump-out-time',
    },
    {
      id: 'damp-towels',
      acts: { at: 'outside', runs: 'dry' },
      do: 'Dry damp towels on the hottest setting, three times as long as it ran before.',
      why: 'A fault that came after minutes has to stay away for much longer than that.',
      look: 'It runs through. If not, open a case.',
      hazards: ['fire-load', 'children'],
    },
  ],
};
