import { expect, ready, test } from './house.js';

/** Words of what is only wanted later, each of a part of the program that the first visit does without. */
const LATER = {
  meters: ['no socket gives so much', 'mqtt://stand-in', 'samples:write'],
  'what the watts tell': ['held off again'],
  'what was foretold': ['Brier'],
  'the life of a machine': [
    'Parts along the years',
    'Brushes of the motor',
    'Repaired it would run',
    'Take away:',
    'yours beside',
  ],
  'the phone as an instrument': [
    'This phone is called',
    'It began to slurp',
    'Feel the spin',
    'Listen for ten seconds',
    'held before a bright',
    'Lay the phone flat',
  ],
  practice: [
    'Practise on a machine',
    'Three minutes before the first time',
    'ran on the floor',
    'A practised hand',
    'Walked through',
    'learning_steps',
  ],
  'the record': [
    'Bring old notes',
    'Take the record along',
    'Charts of the record',
    'Photos through time',
    'Month by month',
  ],
};

test('what is only wanted later is not in the first visit’s scripts', async ({ page, demo }) => {
  const scripts: Promise<string>[] = [];
  page.on('response', (answer) => {
    if (answer.url().endsWith('.js')) scripts.push(answer.text());
  });
  await page.goto(demo.address);
  await ready(page);
  const all = (await Promise.all(scripts)).join('\n');
  expect(all.length).toBeGreaterThan(50_000);
  const there = Object.entries(LATER).flatMap(([part, words]) =>
    words.filter((one) => all.includes(one)).map((one) => `${part}: ${one}`),
  );
  expect(there).toEqual([]);
});
