import { describe, expect, it } from 'vitest';
import type { Supply } from '../../model/schemas.js';
import { SUPPLY_UNITS } from '../../model/vocabulary.js';
import { SUPPLIES } from '../catalogue/data/supplies.js';
import { checkSupply, checkSupplyOf } from './supply-rules.js';

const kept = (item: string, id = `id-of-${item}`): Supply => ({
  id,
  version: 1,
  item,
  name: item,
  unit: 'ml',
  pack: 500,
});

describe('a supply to be kept', () => {
  it.each(SUPPLIES)('$id is kept in the unit that its tasks reckon in, and no other', (known) => {
    for (const unit of SUPPLY_UNITS) {
      const problems = checkSupply({ item: known.id, name: known.name, unit, pack: 1 }, []);
      expect(problems.map(({ field }) => field)).toEqual(unit === known.unit ? [] : ['unit']);
      for (const { message } of problems) expect(message).toContain(known.unit);
    }
  });

  it('is one of the catalogue or the household’s own, in whatever unit that has', () => {
    const unknown = checkSupply({ item: 'moon-dust', name: 'Moon dust', unit: 'g', pack: 1 }, []);
    expect(unknown).toEqual([{ field: 'item', message: 'The catalogue has no such supply.' }]);
    for (const unit of SUPPLY_UNITS) {
      expect(checkSupply({ item: 'own-felt', name: 'Felt', unit, pack: 1 }, [])).toEqual([]);
    }
  });

  it('is kept once; a change to it is not a second one', () => {
    const [first] = SUPPLIES;
    const draft = { item: first!.id, name: 'Mine', unit: first!.unit, pack: 1 };
    const there = [kept(first!.id, 'a')];
    expect(checkSupply(draft, there).map(({ field }) => field)).toEqual(['item']);
    expect(checkSupply(draft, there, 'a')).toEqual([]);
    expect(checkSupply(draft, there, 'b').map(({ field }) => field)).toEqual(['item']);
  });

  it('names every field that is wrong at once', () => {
    const [first] = SUPPLIES;
    const other = SUPPLY_UNITS.find((unit) => unit !== first!.unit)!;
    const problems = checkSupply({ item: first!.id, name: 'Mine', unit: other, pack: 1 }, [
      kept(first!.id),
    ]);
    expect(problems.map(({ field }) => field).sort()).toEqual(['item', 'unit']);
  });
});

describe('the supply that an entry counts', () => {
  it('is a kept one; an entry without a supply has nothing to be asked', () => {
    expect(checkSupplyOf({}, [])).toEqual([]);
    expect(checkSupplyOf({ supply: 'vinegar' }, [kept('vinegar')])).toEqual([]);
    expect(checkSupplyOf({ supply: 'vinegar' }, [kept('citric-acid')])).toEqual([
      { field: 'supply', message: 'Add this supply under House first.' },
    ]);
  });
});
