import { spoken } from '../../../regions/spoken.js';

/** What practitioners disagree on, each side with its reason, and what is done here unless you choose otherwise. */
export interface Dispute {
  id: string;
  question: string;
  sides: readonly { say: string; because: string }[];
  /** Our choice, with its reason. */
  ours: string;
}

/** Common practice. */
export const DISPUTES = spoken([
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
          'It dissolves scale and soap film. It is hard on rubber over years, and some makers forbid vinegar.',
      },
      {
        say: 'Oxygen powder, and never chlorine',
        because:
          'Many manuals say so: it takes grease and smell at 60 °C (140 °F) and spares steel and rubber.',
      },
      {
        say: 'Washing soda',
        because: 'It loosens grease and spares rubber; it dissolves no scale.',
      },
      {
        say: 'Chlorine bleach',
        because:
          'It kills what smells. It ages rubber, pits steel, and must never meet an acid; where a manual allows it, it names the place for it.',
      },
      {
        say: 'A cleaning tablet for washing machines',
        because: 'Convenient and dosed; mostly washing soda and oxygen bleach at a higher price.',
      },
      {
        say: 'A dishwasher tablet',
        because:
          'Some swear by it. It is not made for washers: it foams, may bleach, and leaves salts.',
      },
    ],
    ours: 'What the manual says first. Where it says nothing: heat alone, baking-soda paste where there is film, an acid only against a crust that can be felt. No dishwasher tablet.',
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
        because: 'A machine in daily use changes that water with every load.',
      },
    ],
    ours: 'With the filter where it washes several times a week; every two weeks where it stands for days, or smells.',
  },
  {
    id: 'descaling',
    question: 'Descale at all?',
    sides: [
      {
        say: 'No, not in soft water',
        because: 'Detergent holds back what little there is, and each acid cycle ages rubber.',
      },
      {
        say: 'Yes, by the hardness of the water',
        because: 'In hard water scale grows on the heater whatever the detergent says.',
      },
      {
        say: 'Only with the maker’s descaler',
        because: 'It is tested with the rubber and the metal of that machine.',
      },
    ],
    ours: 'By hardness and litres, and never in soft water. The manual’s descaler first.',
  },
  {
    id: 'duct-screws',
    question: 'Screws in a dryer duct?',
    sides: [
      {
        say: 'None: clamps and metal tape',
        because: 'A point inside the duct catches lint.',
      },
      {
        say: 'Short ones',
        because:
          'Joints hold better. They may stand no more than 3 mm (1/8 in) into the duct (IRC M1502.4.2, from memory).',
      },
    ],
    ours: 'Clamps and metal tape; short screws where your code asks for them.',
  },
] as const satisfies readonly Dispute[]);

export type DisputeId = (typeof DISPUTES)[number]['id'];

/** @throws RangeError for an unknown dispute */
export function disputeById(id: string): Dispute {
  const found = DISPUTES.find((one) => one.id === id);
  if (!found) throw new RangeError(`There is no dispute "${id}".`);
  return found;
}
