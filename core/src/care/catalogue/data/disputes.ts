/** What practitioners disagree on, each side with its reason, and what is done here unless you choose otherwise. */
export interface Dispute {
  id: string;
  question: string;
  sides: readonly { say: string; because: string }[];
  /** Our choice, with its reason. */
  ours: string;
}

/** Common practice. */
export const DISPUTES = [
  {
    id: 'drum-cleaner',
    question: 'What goes into the hot cycle?',
    sides: [
      {
        say: 'Nothing, only heat',
        because: '60 °C (140 °F) and more take the film off, and nothing can harm the rubber.',
      },
      {
        say: 'Vinegar or citric acid',
        because:
          'It dissolves scale and soap film; warm, not boiling, and hard on rubber over years.',
      },
      { say: 'Soda', because: 'It loosens grease and spares rubber; it dissolves no scale.' },
      {
        say: 'Chlorine bleach',
        because: 'It kills what smells; it ages rubber and steel, and must never meet an acid.',
      },
      {
        say: 'A cleaning tablet',
        because: 'Convenient and dosed; mostly soda and oxygen bleach at a higher price.',
      },
    ],
    ours: 'What the manual says first. Where it says nothing: heat alone, soda paste where there is film, an acid only against a crust that can be felt.',
  },
  {
    id: 'softener',
    question: 'Softener: none, half or full?',
    sides: [
      {
        say: 'None',
        because: 'It coats drawer, siphon, screen and sensor strips, and towels soak up less.',
      },
      { say: 'Half of the label', because: 'Soft enough for most, and half the film.' },
      { say: 'The label’s dose', because: 'Less static, and softer where the water is hard.' },
    ],
    ours: 'None, or half where somebody misses it. Never on cloth, always in its own compartment.',
  },
  {
    id: 'draining',
    question: 'Drain the sump every two weeks?',
    sides: [
      {
        say: 'Yes, with each look at the front hose',
        because: 'A litre of standing water is what smells first, and it costs five minutes.',
      },
      {
        say: 'No, with the filter every few months',
        because: 'A machine in daily use changes that water with every wash.',
      },
    ],
    ours: 'With the filter where it washes several times a week; every two weeks where it stands for days, or smells.',
  },
] as const satisfies readonly Dispute[];

export type DisputeId = (typeof DISPUTES)[number]['id'];

/** @throws RangeError for an unknown dispute */
export function disputeById(id: string): Dispute {
  const found = DISPUTES.find((one) => one.id === id);
  if (!found) throw new RangeError(`There is no dispute "${id}".`);
  return found;
}
