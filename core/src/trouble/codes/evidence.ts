import type { CodeSeen } from '../../model/schemas.js';
import { STRENGTHS, type Strength, type TroubleCause } from '../data/types.js';
import { codeClassById } from './classes.js';

/** A code shows with none of its causes so often: one that is listed, and one that was guessed at. */
const LEAK = { listed: 0.01, picked: 0.05 };
/** A class that a person picked tells less than a row of the maker's own sheet. Judgement. */
const PICKED = 0.7;
/** A cause of the code's class that sits elsewhere than the sheet points. Judgement. */
const ELSEWHERE = 0.5;

/** The finding that a case's code makes. */
export const codeFinding = (index: number): string => `code:${index}`;

/** "the code E-18 (drains too slowly)" */
export const sayCode = ({ code, says, class: about }: CodeSeen): string => {
  const meaning = says ?? `a code about ${codeClassById(about).say.split(':')[0]}`;
  return code === undefined ? meaning : `${code}: ${meaning}`;
};

const strengthOf = (link: Strength | number | undefined): number =>
  link === undefined ? 0 : typeof link === 'number' ? link : STRENGTHS[link];

/**
 * How reliably each cause makes a code, by the cause's index: a code of a class comes with whatever
 * makes the class's symptoms; where the sheet points at stations, what sits there makes it more often.
 */
export function codeLinks(
  { class: about, stations = [], strength = 'nearly always', listed }: CodeSeen,
  causes: readonly TroubleCause[],
): { leak: number; links: ReadonlyMap<number, number> } {
  const { shows } = codeClassById(about);
  const ofClass = causes.map(({ makes }) =>
    Math.max(0, ...shows.map((symptom) => strengthOf(makes[symptom]))),
  );
  // A station where nothing of the class can be wrong is pointed at for whatever else is there.
  const blank = stations.filter(
    (place) => !causes.some(({ station }, i) => station === place && ofClass[i]! > 0),
  );
  const links = new Map<number, number>();
  causes.forEach(({ station }, i) => {
    const base = ofClass[i]!;
    const pointed = stations.includes(station);
    const full = pointed && base > 0 ? Math.max(base, STRENGTHS[strength]) : base;
    const link = blank.includes(station)
      ? STRENGTHS[strength] * ELSEWHERE
      : full * (pointed || stations.length === 0 ? 1 : ELSEWHERE);
    if (link > 0) links.set(i, listed ? link : link * PICKED);
  });
  return { leak: listed ? LEAK.listed : LEAK.picked, links };
}
