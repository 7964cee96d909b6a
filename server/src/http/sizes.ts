/** What anybody may send, whoever they are, bytes: a code, a pass phrase, a load that a guest counts. */
export const SMALL = 64_000;
/** JSON of those who may send more, bytes. */
export const USUAL = 1_000_000;
/** Of some years of a meter, a value a minute, packed; and of notes from before. */
export const MOST_METER = 6_000_000;
