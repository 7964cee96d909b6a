import type { VisitStep } from '@needlecase/core';
import { spoken } from './read-aloud';

describe('reading aloud', () => {
  it('says the cautions first, then what to do and what to look at', () => {
    const step = {
      cautions: ['Plug out.'],
      step: { id: 'a', do: 'Turn it.', why: 'It is stuck.', look: 'It moves.' },
    } as unknown as VisitStep;
    expect(spoken(step)).toEqual(['Caution. Plug out.', 'Turn it.', 'Look: It moves.']);
  });
});
