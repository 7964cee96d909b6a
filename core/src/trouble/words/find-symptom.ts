import MiniSearch from 'minisearch';
import { PHRASES } from './phrases.js';

/** What can be found: a symptom's id and its words. */
interface Named {
  id: string;
  say: string;
}

/** Words that every sentence about a machine has. */
const FILLERS = new Set(
  (
    'a an the it its is are was were be been being my our your i we you he she they this that these those there ' +
    'and or of at for with when while if so very really just quite always machine washer dryer washing tumble ' +
    'has have had do does did will would can could get gets getting got go goes going keep keeps come comes coming ' +
    'to by as then than from again help please what why how some any'
  ).split(' '),
);
const NOT =
  /\b(?:not|no|never|without|cannot|can['’]?t|won['’]?t|isn['’]?t|aren['’]?t|doesn['’]?t|don['’]?t|didn['’]?t|wasn['’]?t|wont|cant|doesnt|dosent|doesent|dosnt|dont|isnt|didnt|nothing)\b/g;
/** British and American, and other spellings of one word. */
const SPELLINGS: readonly (readonly [RegExp, string])[] = [
  [/mold/g, 'mould'],
  [/\bodor/g, 'odour'],
  [/\bgray/g, 'grey'],
  [/\bfaucet/g, 'tap'],
  [/\blint\b/g, 'fluff'],
  [/\bgask\w*|\bboot\b/g, 'seal'],
  [/\bunplug\w*/g, 'plug out'],
  [/\blaundry\b|\bwashing\b|\bwash\b|\bclothes\b|\bgarments\b/g, 'laundry'],
  [/\bdetergent\b|\bpowder\b/g, 'soap'],
  [/\bconditioner\b/g, 'softener'],
  [/\bstink\w*|\breek\w*|\bpong\w*|\bodour\w*|\bwhiff\w*|\bstench\b/g, 'smell'],
  [/\bpuddle\w*|\bpool\w*/g, 'puddle'],
  [/\bmoist\b|\bdamp\w*/g, 'damp'],
  [/\bloud\b|\bnoisy\b|\bracket\b/g, 'noise'],
  [/\bages\b|\bfor ?ever\b|\bhours\b|\beternity\b/g, 'long'],
  [/\bshut\b|\bjammed\b|\bstuck\b/g, 'stuck'],
];
/** The least share of the best score that is still told. */
const NEAR = 0.15;

const stem = (word: string): string => {
  for (const end of ['ing', 'ed', 'es', 'ly', 's', 'y', 'e']) {
    if (word.length - end.length >= 3 && word.endsWith(end)) {
      const root = word.slice(0, -end.length);
      // "dripping" and "drip" are one word.
      return /(.)\1$/.test(root) && root.length > 3 ? root.slice(0, -1) : root;
    }
  }
  return word;
};

/** The words that count of a sentence, and what is denied as one word: "does not drain", "not~drain". */
export function wordsOf(text: string): string[] {
  let plain = text.toLowerCase();
  for (const [from, to] of SPELLINGS) plain = plain.replace(from, to);
  plain = plain.replace(NOT, ' not ');
  const words = plain
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word && !FILLERS.has(word))
    .map((word) => (word === 'not' ? word : stem(word)));
  return words.flatMap((word, i) => {
    if (word === 'not') return [];
    return words[i - 1] === 'not' ? [word, `not${word}`] : [word];
  });
}

/**
 * Finds symptoms by whatever words a person has for them, slips included.
 * @param symptoms those that a machine can have
 */
export function symptomFinder(symptoms: readonly Named[]): (typed: string) => string[] {
  const search = new MiniSearch<{ id: string; of: string; text: string }>({
    fields: ['text'],
    storeFields: ['of'],
    tokenize: wordsOf,
    processTerm: (term) => term,
    searchOptions: {
      prefix: (term) => term.length > 2,
      // Two letters changed over are two slips.
      fuzzy: (term) =>
        term.length > 4 ? Math.min(2, 0.4 * term.length) : term.length > 3 ? 1 : false,
      weights: { fuzzy: 0.4, prefix: 0.5 },
      combineWith: 'OR',
      // A short phrase that is said whole tells more than a long one that has the word.
      bm25: { k: 1.2, b: 0.75, d: 0.3 },
    },
  });
  search.addAll(
    symptoms.flatMap(({ id, say }) =>
      [say, ...(PHRASES[id] ?? [])].map((text, i) => ({ id: `${id}/${i}`, of: id, text })),
    ),
  );
  return (typed) => {
    const wanted = wordsOf(typed);
    const best = new Map<string, number>();
    for (const { of, score, queryTerms } of search.search(typed)) {
      // Of words typed, the share that fits counts as much as how well.
      const fits = score * (new Set(queryTerms).size / Math.max(1, new Set(wanted).size)) ** 2;
      best.set(of as string, Math.max(best.get(of as string) ?? 0, fits));
    }
    const ranked = [...best].sort((a, b) => b[1] - a[1]);
    const least = NEAR * (ranked[0]?.[1] ?? 0);
    return ranked.filter(([, score]) => score >= least).map(([id]) => id);
  };
}
