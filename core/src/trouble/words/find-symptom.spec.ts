import { describe, expect, it } from 'vitest';
import { MACHINE_KINDS, type MachineKind } from '../../model/vocabulary.js';
import { SYMPTOMS } from '../data/symptoms.js';
import { symptomsOf } from '../diagnosis/diagnosis.js';
import { symptomFinder } from './find-symptom.js';
import { PHRASES } from './phrases.js';

const WASHER: MachineKind = 'front-load-washer';
const VENTED: MachineKind = 'vented-dryer';
const CONDENSER: MachineKind = 'condenser-dryer';

/** What people type, and which symptoms they mean by it; any of them is right. */
const SAID: readonly (readonly [MachineKind, string, ...string[]])[] = [
  [VENTED, 'does not dry', 'long-drying'],
  [VENTED, 'hot but does not dry', 'long-drying'],
  [VENTED, 'clothes still wet', 'long-drying'],
  [VENTED, 'too hot', 'overheats', 'hot-laundry'],
  [WASHER, 'leaking', 'pool-front', 'water-behind', 'damp-tap-side'],
  [WASHER, 'water on floor', 'pool-front', 'water-behind', 'damp-tap-side'],
  [WASHER, 'not spinning', 'wont-spin'],
  [WASHER, 'stain', 'specks'],
  [CONDENSER, 'stops after five minutes', 'stops-minutes'],
  [VENTED, 'fan', 'weak-air', 'rumble'],
  [WASHER, 'stinks', 'musty-smell', 'sour-smell', 'wash-sour'],
  [WASHER, 'full of water', 'wont-drain'],
  [WASHER, 'shakes', 'walks'],
  [WASHER, "my washer won't drain", 'wont-drain'],
  [WASHER, 'washing machine not draining', 'wont-drain'],
  [WASHER, 'doesnt empty', 'wont-drain'],
  [WASHER, 'water wont go out', 'wont-drain'],
  [WASHER, 'water left in drum after cycle', 'wont-drain'],
  [WASHER, 'standing water', 'wont-drain'],
  [WASHER, 'wont pump the water out', 'wont-drain'],
  [WASHER, 'pump not working', 'wont-drain', 'pump-silent', 'hum-no-flow'],
  [WASHER, 'machine stopped with clothes in water', 'wont-drain'],
  [WASHER, 'draning slow', 'drains-slowly'],
  [WASHER, 'takes ages to empty', 'drains-slowly'],
  [WASHER, 'slow drain', 'drains-slowly'],
  [WASHER, 'drains slower each week', 'getting-worse', 'drains-slowly'],
  [WASHER, 'no spin', 'wont-spin'],
  [WASHER, 'wont spin', 'wont-spin'],
  [WASHER, 'clothes soaking wet at end', 'wont-spin', 'wetter-wash'],
  [WASHER, 'laundry comes out dripping', 'wont-spin', 'wetter-wash'],
  [WASHER, 'door wont open', 'door-locked'],
  [WASHER, "can't open the door", 'door-locked'],
  [WASHER, 'door stuck', 'door-locked'],
  [WASHER, 'locked', 'door-locked'],
  [WASHER, 'my clothes are trapped', 'door-locked'],
  [WASHER, 'drain error on display', 'code-drain'],
  [WASHER, 'error code', 'code-drain', 'code-fill', 'odd-code'],
  [WASHER, 'rotten egg smell', 'sour-smell'],
  [WASHER, 'smells like sewage', 'sour-smell'],
  [WASHER, 'smells', 'musty-smell', 'sour-smell', 'wash-sour'],
  [WASHER, 'bad odor', 'musty-smell', 'sour-smell'],
  [WASHER, 'musty', 'musty-smell'],
  [WASHER, 'moldy smell', 'musty-smell'],
  [WASHER, 'mildew', 'musty-smell', 'black-spots'],
  [WASHER, 'rattling noise when draining', 'rattle-pump'],
  [WASHER, 'coin rattling', 'rattle-pump'],
  [WASHER, 'humming but no water', 'hum-no-flow'],
  [WASHER, 'pump buzzing', 'hum-no-flow'],
  [WASHER, 'pump makes no noise', 'pump-silent'],
  [WASHER, 'standpipe overflowing', 'backs-up'],
  [WASHER, 'water comes up in the sink', 'backs-up'],
  [WASHER, 'gurgling sound', 'gurgle'],
  [WASHER, 'toilet gurgles when washing', 'other-fixtures-slow', 'gurgle'],
  [WASHER, 'bath drains slow as well', 'other-fixtures-slow'],
  [WASHER, 'leak at the back', 'water-behind', 'damp-tap-side'],
  [WASHER, 'puddle behind washer', 'water-behind'],
  [WASHER, 'keeps filling', 'never-full'],
  [WASHER, 'fills and drains at same time', 'never-full'],
  [WASHER, 'lights flashing randomly', 'odd-code'],
  [WASHER, 'leaks from the front', 'pool-front'],
  [WASHER, 'dripping from the door', 'pool-front'],
  [WASHER, 'wet floor', 'pool-front', 'water-behind'],
  [WASHER, 'puddel in front', 'pool-front'],
  [WASHER, 'black mould on seal', 'black-spots'],
  [WASHER, 'mold on rubber', 'black-spots'],
  [WASHER, 'dog hair on clothes', 'hair-on-wash'],
  [WASHER, 'fluff all over the laundry', 'hair-on-wash'],
  [WASHER, 'water in door seal', 'fold-water'],
  [WASHER, 'laundry stinks', 'wash-sour', 'musty-smell'],
  [WASHER, 'towels smell after wash', 'wash-sour'],
  [WASHER, 'clothes smell bad', 'wash-sour', 'smell-one-load'],
  [WASHER, 'black specks on clothes', 'specks'],
  [WASHER, 'brown stains on shirts', 'specks'],
  [WASHER, 'mold in detergent drawer', 'black-cavity'],
  [WASHER, 'powder stays in the drawer', 'drawer-left'],
  [WASHER, 'fabric softener not used', 'drawer-left'],
  [WASHER, 'soap drawer full of water', 'drawer-left'],
  [WASHER, 'flakes', 'flakes'],
  [WASHER, 'scum', 'flakes'],
  [WASHER, 'not washing clean', 'dull-wash'],
  [WASHER, 'whites gone grey', 'dull-wash'],
  [WASHER, 'clothes still dirty', 'dull-wash'],
  [WASHER, 'limescale', 'white-crust'],
  [WASHER, 'calcium deposits', 'white-crust'],
  [WASHER, 'water stays cold', 'long-heating'],
  [WASHER, 'takes forever to heat up', 'long-heating'],
  [WASHER, 'fills slow', 'slow-fill'],
  [WASHER, 'low water pressure', 'slow-fill'],
  [WASHER, 'no water coming in', 'no-fill'],
  [WASHER, 'wont fill', 'no-fill'],
  [WASHER, 'not filling with water', 'no-fill'],
  [WASHER, 'tap leaking', 'damp-tap-side'],
  [WASHER, 'inlet hose drips', 'damp-tap-side'],
  [WASHER, 'vibrates like mad', 'walks'],
  [WASHER, 'jumping around', 'walks'],
  [WASHER, 'moves across the room', 'walks'],
  [WASHER, 'banging when spinning', 'walks', 'bangs-this-load'],
  [WASHER, 'wobbles', 'walks'],
  [WASHER, 'shaking violently in spin', 'walks'],
  [WASHER, 'unbalanced', 'bangs-this-load'],
  [WASHER, 'too many suds', 'foam'],
  [WASHER, 'foam coming out', 'foam'],
  [WASHER, 'soap bubbles everywhere', 'foam'],
  [WASHER, 'sounds like a plane taking off', 'roar'],
  [WASHER, 'loud spin', 'roar', 'walks'],
  [WASHER, 'bearings', 'roar'],
  [WASHER, 'forgot the load overnight', 'smell-one-load'],
  [VENTED, 'not drying', 'long-drying'],
  [VENTED, "dryer doesn't dry clothes", 'long-drying'],
  [VENTED, 'takes two cycles', 'long-drying'],
  [VENTED, 'takes hours to dry', 'long-drying'],
  [VENTED, 'takes forever', 'long-drying'],
  [VENTED, 'damp clothes', 'long-drying', 'auto-damp'],
  [VENTED, 'drys slow', 'long-drying', 'slow-drift'],
  [VENTED, 'laundry is wet at the end', 'long-drying'],
  [VENTED, 'heats but wont dry', 'long-drying'],
  [VENTED, 'clothes burning hot', 'hot-laundry', 'overheats'],
  [VENTED, 'overheating', 'overheats'],
  [VENTED, 'dryer is hot to touch', 'overheats'],
  [VENTED, 'no air coming out of vent', 'weak-air'],
  [VENTED, 'weak airflow', 'weak-air'],
  [VENTED, 'vent clogged', 'weak-air'],
  [VENTED, 'flap outside does not open', 'weak-air'],
  [VENTED, 'rumbling', 'rumble'],
  [VENTED, 'steam behind dryer', 'hot-damp-behind'],
  [VENTED, 'vent hose fell off', 'hot-damp-behind'],
  [VENTED, 'slower and slower', 'slow-drift'],
  [VENTED, 'used to be faster', 'slow-drift'],
  [VENTED, 'water in vent pipe', 'gurgle-duct'],
  [VENTED, 'slow since new', 'since-installed'],
  [VENTED, 'burning smell', 'burning-smell'],
  [VENTED, 'smells burnt', 'burning-smell'],
  [VENTED, 'wrinkled shirts', 'creased'],
  [VENTED, 'no heat', 'no-heat'],
  [VENTED, 'blows cold air', 'no-heat'],
  [VENTED, 'not heating', 'no-heat'],
  [VENTED, "won't get hot", 'no-heat'],
  [VENTED, 'heat goes off', 'heat-stops-early'],
  [VENTED, 'gets hot then cold', 'heat-stops-early'],
  [VENTED, 'works after it cools down', 'restarts-cooled'],
  [VENTED, 'sensor dry ends too early', 'auto-damp'],
  [VENTED, 'stops before dry', 'auto-damp'],
  [VENTED, 'wont turn off', 'runs-on'],
  [VENTED, 'never stops', 'runs-on'],
  [VENTED, 'drum not turning', 'drum-still'],
  [VENTED, 'belt snapped', 'drum-still'],
  [VENTED, 'does not tumble', 'drum-still'],
  [VENTED, 'squeaking', 'squeal'],
  [VENTED, 'thumping noise', 'squeal'],
  [VENTED, 'screeching', 'squeal'],
  [VENTED, 'lint around door', 'damp-round-door'],
  [VENTED, 'cuts out', 'stops-minutes'],
  [VENTED, 'turns itself off', 'stops-minutes', 'runs-on'],
  [CONDENSER, 'stops mid cycle', 'stops-minutes'],
  [CONDENSER, 'shuts off after 10 min', 'stops-minutes'],
  [CONDENSER, 'windows steam up', 'room-damp'],
  [CONDENSER, 'condensation on windows', 'room-damp'],
  [CONDENSER, 'clean condenser light', 'condenser-lamp'],
  [CONDENSER, 'tank light stays on', 'tank-lamp'],
  [CONDENSER, 'says tank full but its empty', 'tank-lamp'],
  [CONDENSER, 'leaks water', 'sump-water'],
  [CONDENSER, 'water under the dryer', 'sump-water'],
  [CONDENSER, 'only when cold in winter', 'winter-only'],
  ['washer-dryer', 'clothes come out damp after drying', 'long-drying', 'long-this-load'],
  ['tower', 'water wont drain', 'wont-drain'],
  ['tower', 'lint screen full and slow drying', 'long-drying', 'slow-drift'],
  [WASHER, 'drians slow', 'drains-slowly'],
  [WASHER, 'leeking', 'pool-front', 'water-behind', 'damp-tap-side'],
  [WASHER, 'dosent spin', 'wont-spin'],
  [WASHER, 'musy smel', 'musty-smell'],
  [WASHER, 'shakeing', 'walks'],
  [VENTED, 'dosnt dry', 'long-drying'],
  [VENTED, 'no haet', 'no-heat'],
  [VENTED, 'squeeking', 'squeal'],
  ['top-load-washer', 'wont agitate or spin', 'wont-spin'],
  ['top-load-washer', 'water stays in the tub', 'wont-drain'],
];

describe('the words people use', () => {
  it(`find their symptom among the first three: 95 % of ${SAID.length}`, () => {
    const finders = new Map(
      MACHINE_KINDS.map((kind) => [kind, symptomFinder(symptomsOf(kind))] as const),
    );
    const missed = SAID.filter(([kind, typed, ...meant]) => {
      const first = finders.get(kind)!(typed).slice(0, 3);
      return !meant.some((id) => first.includes(id));
    });
    const say = missed.map(([kind, typed, ...meant]) => {
      const found = finders.get(kind)!(typed).slice(0, 3);
      return `${kind}: "${typed}" is ${meant.join('/')}, found ${found.join(', ')}`;
    });
    expect(SAID.length).toBeGreaterThanOrEqual(150);
    expect(missed.length, say.join('\n')).toBeLessThanOrEqual(0.05 * SAID.length);
  });

  it('are there for every symptom, and for none that is not', () => {
    expect(Object.keys(PHRASES).sort()).toEqual(SYMPTOMS.map(({ id }) => id).sort());
  });

  it('find a symptom first by its own sentence', () => {
    for (const kind of MACHINE_KINDS) {
      const find = symptomFinder(symptomsOf(kind));
      for (const { id, say } of symptomsOf(kind)) {
        expect(find(say).slice(0, 2), `${kind}: ${say}`).toContain(id);
      }
    }
  });

  it('find nothing by what means nothing', () => {
    expect(symptomFinder(symptomsOf(WASHER))('zzzzzz')).toEqual([]);
    expect(symptomFinder(symptomsOf(WASHER))('')).toEqual([]);
  });
});
