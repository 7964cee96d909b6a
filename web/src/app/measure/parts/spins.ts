import { SPIN_MOISTURE } from '@needlecase/core';

/** What can be told of the spin before a drying test, rpm; nothing where it is not known. */
export const SPINS = [undefined, ...SPIN_MOISTURE.map(([rpm]) => rpm)] as const;

export const saySpin = (rpm: number | undefined): string =>
  rpm === undefined ? 'not known' : `${rpm} rpm`;
