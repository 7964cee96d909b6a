import {
  INSTRUMENT_SCREENS,
  type CodeSheet,
  type Machine,
  type MachineKind,
} from '@needlecase/core';
import { makeIndex, MOST_LETTERS } from './find-index';

const machine = (id: string, name: string, kind: MachineKind, maker: string): Machine => ({
  ...{ id, version: 1, name, kind, maker, place: 'Cellar', features: {}, habits: [] },
  loadsPerWeek: 5,
});
const washer = machine('w1', 'Cellar washer', 'front-load-washer', 'Brackenfold');
const dryer = machine('d1', 'Cellar dryer', 'vented-dryer', 'Wexcombe');
const condenser = machine('c1', 'Top-floor dryer', 'condenser-dryer', 'Ostrel');
const sheet: CodeSheet = {
  ...{ id: 's1', version: 1, format: 'needlecase-code-sheet-1', maker: 'Brackenfold' },
  family: 'Loops',
  kinds: ['front-load-washer'],
  rows: [
    { code: 'HEM-18', says: 'Water not pumped out', class: 'drain' },
    { code: 'TUK', says: 'Clean the drum', class: 'reminder' },
  ],
};
const index = makeIndex({
  machines: [washer, dryer, condenser],
  sheets: [sheet],
  cases: [
    {
      id: 'case1',
      machineId: 'd1',
      events: [
        {
          id: 'e1',
          at: '2026-06-01T10:00:00Z',
          kind: 'answer',
          finding: 'long-drying',
          answer: 'yes',
        },
      ],
    },
  ],
});

/** What is typed, and the address that one of the first three leads to. */
const ASKED: readonly (readonly [typed: string, url: RegExp])[] = [
  // In trouble, in people's words.
  ['full of water', /finding=wont-drain/],
  ['washer full of water', /finding=wont-drain/],
  ['water in the drum', /finding=wont-drain|tub-water/],
  ['does not drain', /finding=wont-drain/],
  ['wont drain', /finding=wont-drain/],
  ['not draining', /finding=wont-drain/],
  ['drians slow', /finding=drains-slowly/],
  ['drains slowly', /finding=drains-slowly/],
  ['wont spin', /finding=wont-spin/],
  ['door stuck', /finding=door-locked/],
  ['door locked', /finding=door-locked/],
  ['cannot open the door', /finding=door-locked/],
  ['leak', /finding=(pool-front|water-behind|damp-tap-side)/],
  ['leaking', /finding=(pool-front|water-behind|damp-tap-side)/],
  ['puddle in front', /finding=pool-front/],
  ['water on the floor', /finding=(pool-front|water-behind)/],
  ['smells', /finding=(musty|sour|wash-sour|smell)/],
  ['stinks', /finding=(musty|sour|wash-sour|smell)/],
  ['musty', /finding=musty-smell/],
  ['mouldy smell', /finding=musty-smell/],
  ['mold', /gasket|finding=(black|musty)|mix/],
  ['black spots', /finding=black-spots/],
  ['burning smell', /finding=burning-smell|danger/],
  ['smoke', /danger/],
  ['gas', /danger/],
  ['shock', /danger/],
  ['fire', /danger/],
  ['takes forever to dry', /finding=(long-drying|long-this-load)/],
  ['not drying', /finding=(long|auto-damp|no-heat)/],
  ['clothes still damp', /finding=(auto-damp|long|wetter)/],
  ['hot but not dry', /finding=(long|hot|auto-damp)/],
  ['no heat', /finding=no-heat/],
  ['cold air', /finding=no-heat/],
  ['overheats', /finding=overheats/],
  ['very hot', /finding=(hot-laundry|overheats)/],
  ['weak air', /finding=weak-air/],
  ['squeaks', /finding=squeal/],
  ['loud noise', /finding=(roar|rattle|squeal|rumble|walks|scrape)/],
  ['rattles', /finding=rattle-pump/],
  ['grinding', /finding=(roar|scrape|rattle)/],
  ['shakes', /finding=(walks|even|bangs)|level/],
  ['walks across the floor', /finding=walks/],
  ['vibrates', /finding=(walks|even|bangs)|level/],
  ['does not start', /finding=wont-start/],
  ['dead', /finding=wont-start/],
  ['drum does not turn', /finding=(drum-still|wont-spin)/],
  ['foam', /finding=foam/],
  ['too many suds', /finding=foam/],
  ['no water coming in', /finding=no-fill/],
  ['fills slowly', /finding=slow-fill/],
  ['hair on clothes', /finding=hair-on-wash/],
  ['grey bits on laundry', /finding=(flakes|specks|hair)/],
  ['room gets damp', /finding=room-damp/],
  ['stops after five minutes', /finding=stops-minutes/],
  ['condenser light on', /finding=condenser-lamp/],
  ['empty tank light', /finding=tank-lamp|tank/],
  ['tumble dryer stops', /finding=(stops-minutes|heat-stops|restarts)/],
  ['help', /^\/trouble/],
  ['broken', /^\/trouble/],
  // Codes.
  ['HEM-18', /code=HEM-18/],
  ['hem18', /code=HEM-18/],
  ['H£M 18', /code=HEM-18/],
  ['TUK', /code=TUK/],
  ['E 21', /code=E%2021/],
  // Work.
  ['pump filter', /pump-filter/],
  ['clean the filter', /filter|lint-screen/],
  ['filter cleaning', /filter|lint-screen/],
  ['lint', /lint-screen/],
  ['lint screen', /lint-screen/],
  ['gasket', /gasket/],
  ['gaskt', /gasket/],
  ['rubber seal', /gasket|drum-seal/],
  ['dispenser', /dispenser/],
  ['soap drawer', /dispenser|drawer/],
  ['detergent drawer', /dispenser/],
  ['vent', /duct|vent-run|hood/],
  ['clean the vent', /duct|hood|vent-run/],
  ['duct', /duct/],
  ['dryer hose', /hose/],
  ['drain hose', /drain-hose|standpipe/],
  ['heat exchanger', /heat-exchanger/],
  ['condenser', /heat-exchanger|c1|condenser/],
  ['descale', /descale|scale/],
  ['limescale', /descale|scale|white-crust/],
  ['inlet screen', /inlet-screen/],
  ['hood outside', /hood/],
  ['moisture sensor', /moisture-sensor|strips/],
  ['start a visit', /^\/visit/],
  ['unplug', /visit|machine/],
  ['anticlockwise', /visit\?machine=w1&task=pump-filter/],
  ['emergency cord', /trouble|door|visit|machine/],
  // Measures.
  ['how many trays', /tub-water/],
  ['vent run', /vent-run/],
  ['how much detergent', /dose/],
  ['dose', /dose/],
  ['hard water', /hardness|#household|scale/],
  ['level', /level/],
  ['cost of a load', /running-cost/],
  ['electricity', /running-cost|#household/],
  ['drain test', /drain-test/],
  ['standpipe height', /standpipe/],
  // Good to know.
  ['duvet', /machine|visit/],
  ['pillows', /machine/],
  ['shoes', /machine/],
  ['rugs', /machine/],
  ['pet hair', /machine|hair/],
  ['empty pockets', /machine/],
  ['softener', /machine|dispenser|drawer|softener/],
  ['bleach', /mix/],
  ['bleach and vinegar', /mix/],
  ['vinegar', /supplies|mix/],
  ['what must not be mixed', /mix/],
  // Keeping house.
  ['calendar', /^\/plan/],
  ['meter', /\/meter$/],
  ['power plug', /\/meter$/],
  ['watts of the washer', /\/meter$/],
  ['holiday', /^\/plan/],
  ['reminder', /^\/plan/],
  ['delete', /^\/house/],
  ['delete a machine', /^\/house/],
  ['add a machine', /^\/house/],
  ['photo', /^\/log/],
  ['reset', /trouble|log/],
  ['settings', /^\/house/],
  ['units', /^\/house/],
  ['fahrenheit', /^\/house/],
  ['backup', /backup/],
  ['export', /log|backup/],
  ['excel', /log/],
  ['lost phone', /phones/],
  ['qr code', /phones|plan/],
  ['shopping list', /supplies/],
  ['dark mode', /^\/$/],
  ['print', /plan|log/],
  ['email', /mail/],
  ['undo', /log/],
  ['history', /log/],
  ['breaker', /house|danger|trouble/],
  ['cellar', /machine/],
  ['top floor', /machine\/c1/],
  ['front-load', /machine\/w1/],
  ['case takes long', /trouble\/case1|finding=long/],
];

describe('find', () => {
  it('knows every instrument by its name, and the first of its own', () => {
    for (const { title, name } of INSTRUMENT_SCREENS) {
      const urls = index.find(title).map(({ url }) => url);
      expect(urls, title).toContain(`/measure/${name}`);
    }
  });

  it(`finds ${ASKED.length} words and phrases in the first three, but for one in twenty`, () => {
    const missed = ASKED.filter(
      ([typed, url]) =>
        !index
          .find(typed)
          .slice(0, 3)
          .some((place) => url.test(place.url)),
    ).map(
      ([typed]) =>
        `${typed}: ${index
          .find(typed)
          .slice(0, 3)
          .map(({ name }) => name)
          .join(' | ')}`,
    );
    expect(ASKED.length).toBeGreaterThanOrEqual(120);
    expect(missed.length / ASKED.length, missed.join('\n')).toBeLessThan(0.05);
  });

  it('answers while a word is typed, letter by letter, at once', () => {
    const words = 'my washer is full of water and smells';
    const took = [...words].map((_, i) => {
      const began = performance.now();
      expect(index.find(words.slice(0, i + 1))).toBeDefined();
      return performance.now() - began;
    });
    took.sort((a, b) => a - b);
    expect(took[Math.floor(took.length / 2)]).toBeLessThan(50);
  });

  it('takes ten thousand letters for the first two hundred', () => {
    expect(index.find(`gasket ${'x'.repeat(10_000)}`)).not.toEqual([]);
    expect(index.find('ab '.repeat(4000))).toEqual(
      index.find('ab '.repeat(4000).slice(0, MOST_LETTERS)),
    );
  });

  it('finds nothing in nonsense, and the views where nothing of the house is known', () => {
    expect(makeIndex({ machines: [] }).find('xyzzyqwv')).toEqual([]);
    expect(
      makeIndex({ machines: [] })
        .find('house')
        .map(({ url }) => url),
    ).toContain('/house');
  });

  it.each(['gas smell', 'my dryer is on fire', 'flooded', 'burst hose', 'got a shock', 'smoke'])(
    'leads “%s” to what to do first',
    (typed) => {
      expect(index.find(typed)[0]!.url).toBe('/trouble?danger=1');
    },
  );

  it('keeps groups together, and tells where each leads', () => {
    const places = index.find('filter');
    const groups = places.map(({ group }) => group);
    expect(new Set(groups).size).toBe(groups.filter((one, i) => one !== groups[i - 1]).length);
    for (const { leads, name } of places) expect(leads, name).not.toBe('');
  });
});
