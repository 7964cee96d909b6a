import type { Tongue } from './in-tongue.js';
import type { Region, Units } from './region.js';

/** What is asked of a household. */
interface Housed {
  region?: Region | undefined;
  units: Units;
}

/** What is built in, allowed and dialled in a kind of house. */
export interface RegionRules {
  name: string;
  /** W of a vented dryer's heater where its type plate was not read. */
  heater: number;
  /** The code or practice by which a standpipe is judged. */
  plumbing: 'IPC' | 'EN';
  /** Longest duct where neither code nor maker was entered, m; none: the code's own 35 ft. */
  ductLimit?: number;
  /** Unit in which the hardness of water is told. */
  hardness: 'mg/L' | '°dH' | 'gpg';
  /** What is dialled in an emergency where the household has kept nothing else. */
  emergency: string;
}

/**
 * Common practice. Heaters: the household plug of most of the world, or the 240 V 30 A circuit of North
 * America. Ducts: IRC M1502.4.6.1 has 35 ft; makers elsewhere allow 2 to 4 m (from memory).
 */
export const REGION_RULES: Readonly<Record<Region, RegionRules>> = {
  eu: {
    name: 'Continental Europe',
    heater: 2500,
    plumbing: 'EN',
    ductLimit: 4,
    hardness: '°dH',
    emergency: '112',
  },
  uk: {
    name: 'United Kingdom and Ireland',
    heater: 2500,
    plumbing: 'EN',
    ductLimit: 4,
    hardness: 'mg/L',
    emergency: '999',
  },
  us: {
    name: 'United States and Canada',
    heater: 5400,
    plumbing: 'IPC',
    hardness: 'gpg',
    emergency: '911',
  },
};

/** Where units say enough. */
const BY_UNITS: Readonly<Record<Units, Region>> = { metric: 'eu', us: 'us' };

/** The kind of house of a household; by its units where it does not say. */
export const regionOf = ({ region, units }: Housed): Region => region ?? BY_UNITS[units];

/** What holds in a household's kind of house. */
export const rulesOf = (household: Housed): RegionRules => REGION_RULES[regionOf(household)];

/** Whose words and units a household is told in. */
export const tongueOf = (household: Housed): Tongue => ({
  region: regionOf(household),
  units: household.units,
});
