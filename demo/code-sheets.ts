import type { CodeSheetDraft } from '@needlecase/core';

/* Display codes of makers that do not exist, in three styles: a syllable of needlework with two digits, lamps, a syllable with one digit. */

export const CODE_SHEETS: readonly CodeSheetDraft[] = [
  {
    format: 'needlecase-code-sheet-1',
    maker: 'Fennowick',
    family: 'Loop 7 front loaders',
    kinds: ['front-load-washer'],
    rows: [
      {
        code: 'HEM-18',
        says: 'Water not pumped out in time',
        class: 'drain',
        stations: ['pump-filter', 'drain-hose'],
        clears: 'Drain by hand, clean the filter, switch off and on',
        strength: 'nearly always',
      },
      {
        code: 'YRN-04',
        says: 'No water within five minutes',
        class: 'fill',
        stations: ['tap', 'inlet-screen'],
        clears: 'Open the tap, clean the screen, start again',
      },
      { code: 'SEL-23', says: 'Water in the base', class: 'leak', clears: 'Tap off, call service' },
      { code: 'LUP-41', says: 'Door not locked', class: 'door', clears: 'Close the door firmly' },
      {
        code: 'FEL-05',
        says: 'Too much foam',
        class: 'suds',
        clears: 'Rinse with nothing in the drawer; use less',
      },
      {
        code: 'NAP-06',
        says: 'Load cannot be balanced',
        class: 'balance',
        clears: 'Spread the load',
      },
      { code: 'WEF-06', says: 'Heats too slowly', class: 'heat' },
      { code: 'WRP-11', says: 'Control board answers nonsense', class: 'electronics' },
      {
        code: 'TUK-09',
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
        says: 'Tank full or not all the way in',
        class: 'tank',
        stations: ['tank'],
        clears: 'Empty the tank, push it in until it clicks, press start',
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
        code: 'BOB2',
        says: 'Air way narrow',
        class: 'air',
        stations: ['duct-run', 'hood', 'transition-hose'],
        clears: 'Clean the vent; it clears after a good load',
        strength: 'often',
      },
      { code: 'TAT1', says: 'No warm air', class: 'heat', clears: 'Call service' },
      {
        code: 'TAT5',
        says: 'Safety stop by heat',
        class: 'overheat',
        stations: ['lint-screen', 'duct-run'],
        clears: 'Let it cool for an hour, look for what holds the air back',
      },
      { code: 'PIN7', says: 'Sensor reads nonsense', class: 'sensor', stations: ['sensor'] },
      { code: 'CRO3', says: 'Tub does not empty', class: 'drain', stations: ['drain-hose'] },
      { code: 'CRO4', says: 'Tub does not fill', class: 'fill', stations: ['tap', 'inlet-screen'] },
      { code: 'RIP8', says: 'Tub out of balance', class: 'balance' },
      { code: 'BOB9', says: 'Clean the screen', class: 'reminder', clears: 'At the next start' },
    ],
  },
];
