import { REGIONS, speakAs, tongueOf, type Household, type Tongue } from '@needlecase/core';
import { readLocal, writeLocal } from './local';

const NAME = 'tongue';
const HOUSE = 'house';

/** The household that was served here last; what is noted here is for it. */
export const houseHere = (): string | undefined => readLocal<string>(HOUSE);

const isSame = (a: Tongue | undefined, b: Tongue): boolean =>
  a?.region === b.region && a.units === b.units;

/**
 * From now on everything is told in a household's words and units, also when this device starts next time.
 * @returns whether that is another tongue than before: what is drawn already keeps its words until the page is read anew
 */
export function speakAtHome(household: Pick<Household, 'id' | 'region' | 'units'>): boolean {
  const wanted = tongueOf(household);
  if (houseHere() !== household.id) writeLocal(HOUSE, household.id);
  speakAs(wanted);
  if (isSame(readLocal<Tongue>(NAME), wanted)) return false;
  writeLocal(NAME, wanted);
  return true;
}

/** As this device was spoken to last, before the household is read. */
export function speakAsBefore(): void {
  const before = readLocal<Tongue>(NAME);
  if (before && REGIONS.includes(before.region)) speakAs(before);
}
