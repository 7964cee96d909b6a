/** The instruments in the order of their line. */
export const INSTRUMENT_LIST: readonly {
  path: string;
  name: string;
  line: 'air' | 'water';
  asks: string;
}[] = [
  {
    path: 'vent-run',
    name: 'Vent run',
    line: 'air',
    asks: 'Where does the pressure go on the way out?',
  },
  { path: 'hood-air', name: 'Air at the hood', line: 'air', asks: 'How much air comes out?' },
  {
    path: 'exhaust-air',
    name: 'Water in the exhaust',
    line: 'air',
    asks: 'How much water goes out a minute?',
  },
  {
    path: 'drying-test',
    name: 'Drying test',
    line: 'air',
    asks: 'Was this load slow, or just wet?',
  },
  {
    path: 'drum-model',
    name: 'Drum model',
    line: 'air',
    asks: 'Why does a narrow way suddenly cost so much?',
  },
  {
    path: 'lint-screen',
    name: 'Water on the lint screen',
    line: 'air',
    asks: 'Is there a film you cannot see?',
  },
  {
    path: 'moisture-sensor',
    name: 'Moisture sensor',
    line: 'air',
    asks: 'Do the two strips still tell damp from dry?',
  },
  {
    path: 'running-cost',
    name: 'Running cost',
    line: 'air',
    asks: 'What does today’s restriction cost a year?',
  },
  {
    path: 'tub-water',
    name: 'Water in the tub',
    line: 'water',
    asks: 'How many trays, how many minutes?',
  },
  {
    path: 'drain-test',
    name: 'Drain test',
    line: 'water',
    asks: 'Is it draining slowly, and where?',
  },
  { path: 'fill-flow', name: 'Fill flow', line: 'water', asks: 'Does enough water come in?' },
  {
    path: 'standpipe',
    name: 'Standpipe and hose',
    line: 'water',
    asks: 'Can it siphon, slip out or overflow?',
  },
  { path: 'dose', name: 'Dose', line: 'water', asks: 'How much detergent does this load need?' },
  {
    path: 'mix',
    name: 'Mix',
    line: 'water',
    asks: 'What goes with what, and what must never meet?',
  },
  { path: 'scale', name: 'Scale', line: 'water', asks: 'Is descaling worth it yet?' },
  { path: 'level', name: 'Level', line: 'water', asks: 'Which foot, how many turns, which way?' },
];
