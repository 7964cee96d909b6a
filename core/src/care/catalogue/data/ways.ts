import type { WayId } from '../../../model/vocabulary.js';
import { spoken } from '../../../regions/spoken.js';

/** What is asked for each of a machine's own ways, as a field says it. */
export const WAY_NAMES: Record<WayId, string> = spoken({
  'door-reset': 'Reset sequence for the door',
  'drum-programme': 'Keys for the drum clean',
  'fluff-programme': 'Keys for the lint rinse',
  'filter-turns': 'Which way the filter turns, and how far',
  screws: 'Screw heads and where they are',
  'sensor-place': 'Where the sensor strips are',
  'exchanger-release': 'How the heat exchanger comes out',
  'filter-place': 'Where the filter is',
  'valve-place': 'Where the valve is, and how it shuts',
});
