import type { FileShape, GuessedShape } from '@needlecase/core/loads/log/shape';
import { readLocal, writeLocal } from '../../data/local';

const SHAPES = 'meter-shapes';
/** What was put right of a shape: where its figures stand is known by its header. */
type PutRight = Pick<FileShape, 'timeKind' | 'figure' | 'unit' | 'decimal'>;
const MOST = 20;

/** How a file of this make was understood when one was read last; as it was guessed where none was. */
export function rememberedShape({ key, shape }: GuessedShape): FileShape {
  const known = readLocal<Record<string, PutRight>>(SHAPES)?.[key];
  return known ? { ...shape, ...known } : shape;
}

/** Remembers how a file was understood, where that is not how it was guessed. */
export function rememberShape({ key, shape: guessed }: GuessedShape, shape: FileShape): void {
  const { timeKind, figure, unit, decimal } = shape;
  const same =
    guessed.timeKind === timeKind &&
    guessed.figure === figure &&
    guessed.unit === unit &&
    guessed.decimal === decimal;
  const { [key]: before, ...others } = readLocal<Record<string, PutRight>>(SHAPES) ?? {};
  if (same && !before) return;
  const kept = Object.entries(others).slice(1 - MOST);
  writeLocal(SHAPES, {
    ...Object.fromEntries(kept),
    ...(same ? {} : { [key]: { timeKind, figure, unit, decimal } }),
  });
}
