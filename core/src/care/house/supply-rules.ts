import type { FieldProblem } from '../../model/check.js';
import type { EntryDraft, Supply, SupplyDraft } from '../../model/schemas.js';
import { SUPPLIES } from '../catalogue/data/supplies.js';

/**
 * What is wrong with a supply to be kept: one that neither the catalogue knows nor is the household's own, in
 * another unit than the tasks reckon in, or kept already.
 * @param but the id of the supply that is changed
 */
export function checkSupply(
  { item, unit }: SupplyDraft,
  kept: readonly Supply[],
  but?: string,
): FieldProblem[] {
  const problems: FieldProblem[] = [];
  const known = SUPPLIES.find(({ id }) => id === item);
  if (!known && !item.startsWith('own-')) {
    problems.push({ field: 'item', message: 'The catalogue has no such supply.' });
  }
  if (known && known.unit !== unit) {
    problems.push({ field: 'unit', message: `The tasks reckon this one in ${known.unit}.` });
  }
  if (kept.some((one) => one.item === item && one.id !== but)) {
    problems.push({ field: 'item', message: 'This supply is kept already.' });
  }
  return problems;
}

/** Whether the supply that an entry counts or buys is kept. */
export const checkSupplyOf = (
  { supply }: Pick<EntryDraft, 'supply'>,
  kept: readonly Supply[],
): FieldProblem[] =>
  supply === undefined || kept.some(({ item }) => item === supply)
    ? []
    : [{ field: 'supply', message: 'Add this supply under House first.' }];
