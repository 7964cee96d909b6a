import { describe, expect, it } from 'vitest';
import { PROCEDURES } from '../care/catalogue/data/procedures/index.js';
import { SETUPS } from '../care/catalogue/data/setups.js';
import { HAZARDS } from '../care/catalogue/data/hazards.js';
import { CHECKS } from '../trouble/data/checks.js';
import { CAUSES } from '../trouble/data/causes.js';
import { AS_WRITTEN, inTongue, type Tongue } from './in-tongue.js';
import { REGIONS } from './region.js';
import { REGION_RULES, regionOf, rulesOf, tongueOf } from './rules.js';
import { REGION_SAYINGS } from './sayings.js';
import { speakAs, spoken, told } from './spoken.js';
import { REGION_WORDS } from './words.js';

const US: Tongue = { region: 'us', units: 'us' };
const UK: Tongue = { region: 'uk', units: 'metric' };

/** Everything in a table that people read. */
const textsIn = (value: unknown): string[] =>
  typeof value === 'string'
    ? value.includes(' ')
      ? [value]
      : []
    : value && typeof value === 'object'
      ? Object.values(value).flatMap(textsIn)
      : [];

describe('a text in the words of a kind of house', () => {
  it.each([
    ['Shut the tap of the fill hose.', US, 'Shut the faucet of the fill hose.'],
    ['Torch and mirror.', US, 'Flashlight and mirror.'],
    ['The tap’s thread; two taps.', US, 'The faucet’s thread; two faucets.'],
    ['Shut the stop valve of the house.', UK, 'Shut the stopcock of the house.'],
    ['Run a hot cycle.', UK, 'Run a hot programme.'],
    ['Brush off the mould, it is grey.', US, 'Brush off the mold, it is gray.'],
    ['Call a licensed gas fitter.', UK, 'Call a registered gas engineer.'],
    ['A washer-dryer is no dryer sheet.', UK, 'A washer-dryer is no dryer sheet.'],
    ['Shut the tap.', AS_WRITTEN, 'Shut the tap.'],
  ])('%s', (text, tongue, wanted) => expect(inTongue(text, tongue)).toBe(wanted));

  it.each([
    ['under 40 °C (104 °F).', 'under 40 °C.', 'under 104 °F.'],
    ['15 to 30 cm (6 to 12 in) deep', '15 to 30 cm deep', '6 to 12 in deep'],
    ['12 to 20 L (3 to 5 gal) a minute', '12 to 20 L a minute', '3 to 5 gal a minute'],
    ['half a litre (a pint) into', 'half a litre into', 'a pint into'],
    ['two litres (half a gallon) of water', 'two litres of water', 'half a gallon of water'],
    ['0.9 m (3 ft) or more', '0.9 m or more', '3 ft or more'],
  ])('%s in one unit', (text, metric, us) => {
    expect(inTongue(text, { region: 'eu', units: 'metric' })).toBe(metric);
    expect(inTongue(text, { region: 'eu', units: 'us' })).toBe(us);
  });

  it('tells each word once, and each only as itself', () => {
    const written = REGION_WORDS.map(({ eu }) => eu.toLowerCase());
    expect(new Set(written).size).toBe(written.length);
    for (const { eu, uk, us } of REGION_WORDS) expect(uk ?? us, eu).toBeTruthy();
  });

  it('finds every sentence of its own in the texts, to the letter', () => {
    const texts = JSON.stringify([PROCEDURES, SETUPS, HAZARDS, CHECKS, CAUSES]);
    const elsewhere = ['Hook it up to'];
    for (const { eu, source } of REGION_SAYINGS) {
      const said = JSON.stringify(eu).slice(1, -1);
      if (!elsewhere.some((start) => eu.startsWith(start))) expect(texts).toContain(said);
      expect(source.length).toBeGreaterThan(8);
    }
  });
});

describe('tables of texts', () => {
  it('are told as is spoken, whenever they come, and go back to how they were written', () => {
    const table = spoken([{ id: 'tap', name: 'Tap', say: 'Shut the tap.' }]);
    speakAs(US);
    expect(table).toEqual([{ id: 'tap', name: 'Faucet', say: 'Shut the faucet.' }]);
    const later = spoken({ say: 'A torch.', inner: table });
    expect(later.say).toBe('A flashlight.');
    expect(told('A bin bag')).toBe('A trash bag');
    speakAs(AS_WRITTEN);
    expect(table[0]!.say).toBe('Shut the tap.');
    expect(later).toEqual({ say: 'A torch.', inner: table });
  });

  it('hold the catalogue and the trouble in every region', () => {
    const seen = REGIONS.map((region) => {
      speakAs({ region, units: region === 'us' ? 'us' : 'metric' });
      return textsIn([PROCEDURES, SETUPS, HAZARDS, CHECKS, CAUSES]);
    });
    speakAs(AS_WRITTEN);
    const [eu, uk, us] = seen as [string[], string[], string[]];
    const having = (texts: string[], word: RegExp) => texts.filter((text) => word.test(text));
    expect(having(us, /\b(torch|taps?|mould|litres?|spanner|petrol|bin bag)\b/i)).toEqual([]);
    expect(having(uk, /\b(cycle|dish soap|gas fitter)\b/i)).toEqual([]);
    expect(having([...eu, ...uk], /\([^()]*\d[^()]*(°F| in| ft| gal)\)/)).toEqual([]);
    expect(having(us, /\d ?(cm|°C|litres|m) \(/)).toEqual([]);
  });
});

describe('what holds in a kind of house', () => {
  it('follows the units unless it is said', () => {
    expect(regionOf({ units: 'metric' })).toBe('eu');
    expect(regionOf({ units: 'us' })).toBe('us');
    expect(rulesOf({ units: 'metric', region: 'uk' }).emergency).toBe('999');
    expect(tongueOf({ units: 'metric', region: 'us' })).toEqual({ region: 'us', units: 'metric' });
  });

  it('has a name, a heater and a number for each', () => {
    for (const { name, heater, emergency } of Object.values(REGION_RULES)) {
      expect(name.length).toBeGreaterThan(5);
      expect(heater).toBeGreaterThan(1000);
      expect(emergency).toMatch(/^\d+$/);
    }
  });
});
