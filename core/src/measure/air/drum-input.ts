import { readFields, type Fields, type Given } from '../input/fields.js';
import { dryLoad, type DrumResult } from './drum.js';

export const DRUM_FIELDS = {
  dry: { label: 'Dry cloth', dimension: 'mass', least: 0.2, most: 15 },
  moisture: { label: 'Moisture at the start', dimension: 'ratio', least: 0.05, most: 3 },
  target: { label: 'Dry enough at', dimension: 'ratio', least: 0.01, most: 0.5, seldom: true },
  flow: { label: 'Air at the hood', dimension: 'flow', least: 0.004, most: 0.2 },
  heater: { label: 'Heater', dimension: 'power', least: 500, most: 8000 },
  room: { label: 'Room', dimension: 'temperature', least: -10, most: 45, seldom: true },
  humidity: {
    label: 'Humidity of the room',
    dimension: 'ratio',
    least: 0.01,
    most: 1,
    seldom: true,
  },
  thermostat: {
    label: 'Thermostat at the exhaust',
    dimension: 'temperature',
    least: 40,
    most: 90,
    optional: true,
  },
} as const satisfies Fields;

/** The drum model from figures with their units. @throws MeasureProblem */
export const drumModel = (given: Given<typeof DRUM_FIELDS>): DrumResult =>
  dryLoad(readFields(given, DRUM_FIELDS));
