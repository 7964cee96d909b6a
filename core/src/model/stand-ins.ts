/** Programmes that a plug runs that stands in for a real one. */
export const STAND_INS = [
  'cotton',
  'hot',
  'cold',
  'quick',
  'soak',
  'vented',
  'condenser',
  'heat-pump',
  'wash-and-dry',
] as const;

/** The broker that it speaks to. */
export const STAND_IN_BROKER = 'mqtt://stand-in';
