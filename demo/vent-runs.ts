import type { VentRunDraft } from '@needlecase/core';
import type { DemoMachine } from './household.js';

const m = (value: number) => ({ value, unit: 'm' });

/** The way out of the cellar, a riser and two elbows before the hood, as it is and as it could be. */
export const VENT_RUNS: readonly (Omit<VentRunDraft, 'machineId'> & { machine: DemoMachine })[] = [
  {
    machine: 'cellar-dryer',
    name: 'Out of the cellar, as it is',
    run: {
      pieces: [
        { is: 'hose', length: m(1.8), stretched: false },
        { is: 'straight', length: m(0.8), direction: 'level' },
        { is: 'elbow', angle: 90, radius: '4-in' },
        { is: 'straight', length: m(2.6), direction: 'up' },
        { is: 'elbow', angle: 90, radius: 'mitered' },
        { is: 'straight', length: m(1.4), direction: 'level' },
        { is: 'hood', state: 'linted', screened: false },
      ],
      material: 'smooth-metal',
      diameter: { value: 100, unit: 'mm' },
      lining: { value: 18, unit: 'mm' },
    },
  },
  {
    machine: 'cellar-dryer',
    name: 'With wide bends and a short hose',
    run: {
      pieces: [
        { is: 'hose', length: m(0.8), stretched: true },
        { is: 'straight', length: m(0.8), direction: 'level' },
        { is: 'elbow', angle: 90, radius: '8-in' },
        { is: 'straight', length: m(2.6), direction: 'up' },
        { is: 'elbow', angle: 90, radius: '8-in' },
        { is: 'straight', length: m(1.4), direction: 'level' },
        { is: 'hood', state: 'free', screened: false },
      ],
      material: 'smooth-metal',
      diameter: { value: 100, unit: 'mm' },
      lining: { value: 0, unit: 'mm' },
    },
  },
];
