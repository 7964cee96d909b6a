/** What a machine's record can tell, a section each. */
export type RecordSection = 'open' | 'care' | 'meter' | 'parts' | 'charts' | 'trouble' | 'done';

/** For whom a machine's record is printed: what they want to know, and what is none of their business. */
export interface ForWhom {
  /** After "for". */
  words: string;
  sections: readonly RecordSection[];
  /** What things cost. */
  money: boolean;
  /** What is only of this house: its stop valve, its numbers. */
  house: boolean;
  /** The words that people of the house wrote. */
  notes: boolean;
  photos: boolean;
}

const ALL: readonly RecordSection[] = [
  ...(['open', 'care', 'meter', 'parts', 'charts', 'trouble', 'done'] as const),
];

export const FOR_WHOM = {
  house: {
    ...{ words: 'the house', sections: ALL },
    ...{ money: true, house: true, notes: true, photos: true },
  },
  buyer: {
    words: 'a buyer',
    sections: ['open', 'parts', 'charts', 'trouble', 'done'],
    ...{ money: false, house: false, notes: false, photos: true },
  },
  landlord: {
    words: 'a landlord',
    sections: ['open', 'care', 'parts', 'trouble', 'done'],
    ...{ money: true, house: true, notes: true, photos: true },
  },
  technician: {
    words: 'a technician',
    sections: ['open', 'trouble', 'charts', 'meter', 'parts', 'done'],
    ...{ money: false, house: true, notes: true, photos: true },
  },
} as const satisfies Record<string, ForWhom>;
export type ForWhomId = keyof typeof FOR_WHOM;
export const FOR_WHOM_IDS = Object.keys(FOR_WHOM) as ForWhomId[];
