import type { CodeSheetDraft } from '@needlecase/core';

/* Display codes of makers that do not exist, in three styles: letter and number, lamps, short words. */

export const CODE_SHEETS: readonly CodeSheetDraft[] = [
  {
    format: 'needlecase-code-sheet-1',
    maker: 'Fennowick',
    family: 'Loop 7 front loaders',
    kinds: ['front-load-washer'],
    rows: [
      {
        code: 'E-18',
        says: 'Water not pumped out in time',
        class: 'drain',
        stations: ['pump-filter', 'drain-hose'],
        clears: 'Drain by hand, clean the filter, switch off and on',
        strength: 'nearly always',
      },
      {
        code: 'E-17',
        says: 'No water within five minutes',
        class: 'fill',
        stations: ['tap', 'inlet-screen'],
        clears: 'Open the tap, clean the screen, start again',
      },
      { code: 'E-23', says: 'Water in the base', class: 'leak', clears: 'Tap off, call service' },
      { code: 'E-41', says: 'Door not locked', class: 'door', clears: 'Close the door firmly' },
      {
        code: 'Sd',
        says: 'Too much foam',
        class: 'suds',
        clears: 'Rinse with nothing in the drawer; use less',
      },
      { code: 'Ub', says: 'Load cannot be balanced', class: 'balance', clears: 'Spread the load' },
      { code: 'F-06', says: 'Heats too slowly', class: 'heat' },
      { code: 'F-11', says: 'Control board answers nonsense', class: 'electronics' },
      {
        code: 'CL-9',
        says: 'Drum clean is due',
        class: 'reminder',
        clears: 'A drum-clean programme',
      },
    ],
  },
  {
    format: 'needlecase-code-sheet-1',
    maker: 'Ostrelle',
    family: 'Alcove condenser dryers',
    kinds: ['condenser-dryer', 'heat-pump-dryer'],
    lamps: ['Filter', 'Tank', 'Condenser', 'Start'],
    rows: [
      {
        pattern: { lamps: ['Tank'], flashes: 0 },
        says: 'Tank full or not pushed home',
        class: 'tank',
        stations: ['tank'],
        clears: 'Empty the tank, push it home, press start',
      },
      {
        pattern: { lamps: ['Filter', 'Tank'], flashes: 3 },
        says: 'Water not pumped away',
        class: 'drain',
        stations: ['condensate-sump', 'fine-filter'],
        clears: 'Clean the filters, look at the sump',
        strength: 'often',
      },
      {
        pattern: { lamps: ['Filter'], flashes: 2 },
        says: 'Too little air',
        class: 'air',
        stations: ['lint-screen', 'fine-filter'],
        clears: 'Clean both filters',
      },
      {
        pattern: { lamps: ['Condenser'], flashes: 0 },
        says: 'Clean the condenser',
        class: 'reminder',
        clears: 'Goes out when the next programme starts',
      },
      {
        pattern: { lamps: ['Start', 'Condenser'], flashes: 5 },
        says: 'Too hot: stopped to cool',
        class: 'overheat',
        stations: ['heat-exchanger', 'lint-screen'],
      },
      { pattern: { lamps: ['Start'], flashes: 6 }, says: 'Motor does not turn', class: 'motor' },
    ],
  },
  {
    format: 'needlecase-code-sheet-1',
    maker: 'Tarnhollow',
    family: 'Longfell dryers and tubs',
    kinds: ['vented-dryer', 'top-load-washer'],
    rows: [
      {
        code: 'DUCT',
        says: 'Air way narrow',
        class: 'air',
        stations: ['duct-run', 'hood', 'transition-hose'],
        clears: 'Clean the vent; it clears after a good load',
        strength: 'often',
      },
      { code: 'HEAT', says: 'No warm air', class: 'heat', clears: 'Call service' },
      {
        code: 'HOT5',
        says: 'Safety stop by heat',
        class: 'overheat',
        stations: ['lint-screen', 'duct-run'],
        clears: 'Let it cool for an hour, look for what holds the air back',
      },
      { code: 'DAMP', says: 'Sensor reads nonsense', class: 'sensor', stations: ['sensor'] },
      { code: 'FULL', says: 'Tub does not empty', class: 'drain', stations: ['drain-hose'] },
      { code: 'THIR', says: 'Tub does not fill', class: 'fill', stations: ['tap', 'inlet-screen'] },
      { code: 'LEAN', says: 'Tub out of balance', class: 'balance' },
      { code: 'LINT', says: 'Clean the screen', class: 'reminder', clears: 'At the next start' },
    ],
  },
];
