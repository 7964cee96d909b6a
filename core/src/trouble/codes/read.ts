import type { CodeRow, CodeSeen, CodeSheetDraft, LampPattern } from '../../model/schemas.js';
import type { MachineKind } from '../../model/vocabulary.js';

/** Letters, digits and the like in a code are at most so many. */
const LONGEST = 12;

/**
 * Signs that a seven-segment display shows alike, and t and 7 upside down.
 */
const ALIKE = ['5S', '0OD', '1Il', '6b', '8B', '2Z', '9gq', 'nrh', 't7'];
/** Keys that lie beside or above what was meant, and signs that look like it. */
const SLIPS: Readonly<Record<string, string>> = {
  '£': 'E',
  '€': 'E',
  $: 'S',
  '§': 'S',
  '|': '1',
  '!': '1',
  '¡': '1',
};

/** A row of a sheet that what was typed may mean. */
export interface CodeMatch {
  row: CodeRow;
  maker: string;
  family: string;
  /** Signs that were taken for others that look alike; 0 where it is the very code. */
  alike: number;
}

export type CodeReading =
  | { is: 'found'; match: CodeMatch; others: CodeMatch[]; say: string }
  /** Several fit equally well: the person chooses. */
  | { is: 'several'; matches: CodeMatch[]; say: string }
  /** On a sheet of another maker or kind only: said, never taken for this machine's. */
  | { is: 'elsewhere'; matches: CodeMatch[]; say: string }
  | { is: 'unknown'; say: string }
  | { is: 'unreadable'; say: string };

/** The letters and digits of a code. */
const signsOf = (code: string): string[] =>
  [...code.normalize('NFKC')]
    .map((sign) => SLIPS[sign] ?? sign)
    .filter((sign) => /[\p{L}\p{N}]/u.test(sign));

/** A code without spaces, hyphens and dots, capital. */
export const bare = (code: string): string => signsOf(code).join('').toUpperCase();

/** A sheet counts for machines of its maker and kinds, whatever way the name is written. */
export const sheetFits = (
  { maker, kinds }: Pick<CodeSheetDraft, 'maker' | 'kinds'>,
  machine: { kind: MachineKind; maker?: string },
): boolean =>
  kinds.includes(machine.kind) &&
  machine.maker !== undefined &&
  machine.maker.trim().toLowerCase().startsWith(maker.trim().toLowerCase());

/**
 * Looks a typed code up. Spelling does not matter, and signs that a display shows alike are resolved
 * against the sheets.
 * @param typed as the person typed it
 * @param machine whose display it is; only sheets of its maker count
 * @example readCode('5d', sheets, washer) // found "Sd", one sign alike
 */
export function readCode(
  typed: string,
  sheets: readonly CodeSheetDraft[],
  machine: { kind: MachineKind; maker?: string },
): CodeReading {
  if (typed.length > 200) {
    return unreadable(`A display shows at most ${LONGEST} letters and digits. Type only the code.`);
  }
  const code = bare(typed);
  if (code === '') {
    return unreadable(
      'There is no letter or digit in it. Type what the display shows, or enter lamps as lamps.',
    );
  }
  if ([...code].length > LONGEST) {
    return unreadable(`A display shows at most ${LONGEST} letters and digits. Type only the code.`);
  }
  const slipped = [...typed.normalize('NFKC')].some((sign) => SLIPS[sign] !== undefined);
  const matches = matchesIn(
    code,
    slipped,
    sheets.filter((sheet) => sheetFits(sheet, machine)),
  );
  const [first] = matches;
  if (first) {
    const best = matches.filter(({ alike }) => alike === first.alike);
    if (best.length > 1) {
      return {
        is: 'several',
        matches: best,
        say: `“${shown(typed)}” may be ${best.map(({ row }) => row.code).join(' or ')}. Look again which one it is.`,
      };
    }
    return {
      is: 'found',
      match: first,
      others: matches.slice(1),
      say:
        first.alike > 0
          ? `You typed ${shown(typed)}, your sheet has ${first.row.code}.`
          : `${first.row.code} on the sheet ${first.maker} ${first.family}.`,
    };
  }
  const elsewhere = matchesIn(
    code,
    slipped,
    sheets.filter((sheet) => !sheetFits(sheet, machine)),
  ).filter(({ alike }) => alike === 0);
  if (elsewhere.length) {
    const where = elsewhere.map(({ maker, family }) => `${maker} ${family}`);
    return {
      is: 'elsewhere',
      matches: elsewhere,
      say: `No sheet of this machine has ${shown(typed)}. It stands on ${[...new Set(where)].join(' and ')}, but makers use the same code for different things. Say below what your manual says it is about.`,
    };
  }
  return {
    is: 'unknown',
    say: `No sheet of this machine has ${shown(typed)}. Say below what the display or the manual hints at; you can add it to a sheet.`,
  };
}

const unreadable = (say: string): CodeReading => ({ is: 'unreadable', say });
const shown = (typed: string): string => typed.trim();

function matchesIn(code: string, slipped: boolean, sheets: readonly CodeSheetDraft[]): CodeMatch[] {
  return sheets
    .flatMap(({ maker, family, rows }) =>
      rows.flatMap((row): CodeMatch[] => {
        const alike = row.code === undefined ? undefined : likeness(code, row.code);
        if (alike === undefined) return [];
        return [{ row, maker, family, alike: alike + (slipped ? 1 : 0) }];
      }),
    )
    .sort((a, b) => a.alike - b.alike);
}

/** How many signs have to be taken for one that looks alike; undefined where one does not. */
function likeness(typed: string, listed: string): number | undefined {
  const [a, b] = [[...typed], signsOf(listed)];
  if (a.length !== b.length) return undefined;
  let alike = 0;
  for (const [i, sign] of a.entries()) {
    if (sign === b[i]!.toUpperCase()) continue;
    if (!looksLike(sign, b[i]!)) return undefined;
    alike++;
  }
  return alike;
}

/** On a display a small b is like 6, a capital one like 8; the other letters have one shape. */
function looksLike(typed: string, listed: string): boolean {
  const has = (group: string, sign: string): boolean =>
    sign === 'b' || sign === 'B'
      ? group.includes(sign)
      : group.toUpperCase().includes(sign.toUpperCase());
  return ALIKE.some(
    (group) => has(group, listed) && (has(group, typed) || (typed === 'B' && group.includes('b'))),
  );
}

/** Rows whose lamps flash so, in whatever order they are named. */
export function readLamps(
  { lamps, flashes }: LampPattern,
  sheets: readonly CodeSheetDraft[],
  machine: { kind: MachineKind; maker?: string },
): CodeMatch[] {
  const wanted = lamps.map(bare).sort().join();
  return sheets
    .filter((sheet) => sheetFits(sheet, machine))
    .flatMap(({ maker, family, rows }) =>
      rows
        .filter(
          ({ pattern }) =>
            pattern?.flashes === flashes && pattern.lamps.map(bare).sort().join() === wanted,
        )
        .map((row) => ({ row, maker, family, alike: 0 })),
    );
}

/** "Filter and Tank flash 3 times", "Tank is on". */
export function sayLamps({ lamps, flashes }: LampPattern): string {
  const names = lamps.join(' and ');
  const many = lamps.length > 1;
  if (flashes === 0) return `${names} ${many ? 'are' : 'is'} on`;
  return `${names} ${many ? 'flash' : 'flashes'} ${flashes} ${flashes === 1 ? 'time' : 'times'}`;
}

/** What a row of a sheet says of the trouble. */
export const seenOf = ({
  code,
  pattern,
  says,
  class: about,
  stations,
  strength,
}: CodeRow): CodeSeen => ({
  ...((code ?? pattern) ? { code: code ?? sayLamps(pattern!) } : {}),
  says,
  class: about,
  ...(stations ? { stations } : {}),
  ...(strength ? { strength } : {}),
  listed: true,
});
