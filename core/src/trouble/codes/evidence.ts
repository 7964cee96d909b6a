import type { CodeSeen } from '../../model/schemas.js';
import { STRENGTHS, type HiddenSign, type Strength, type TroubleCause } from '../data/types.js';
import { codeClassById } from './classes.js';

/** A code shows with none of its causes so often: one that is listed, and one that was guessed at. */
const LEAK = { listed: 0.01, picked: 0.05 };
/** A class that a person picked tells less than a row of the maker's own sheet. Judgement. */
const PICKED = 0.7;
/** A cause of the code's class that sits elsewhere than the sheet points. Judgement. */
const ELSEWHERE = 0.5;
/** A symptom that says too little of a state for a code about it to come from it. */
const NO_CODE = ['wont-spin'];

/** The finding that a case's code makes. */
export const codeFinding = (index: number): string => `code:${index}`;

/** "the code HEM-18 (drains too slowly)" */
export const sayCode = ({ code, says, class: about }: CodeSeen): string => {
  const meaning = says ?? `a code about ${codeClassById(about).say.split(':')[0]}`;
  return code === undefined ? meaning : `${code}: ${meaning}`;
};

const strengthOf = (link: Strength | number | undefined): number =>
  link === undefined ? 0 : typeof link === 'number' ? link : STRENGTHS[link];

/**
 * How reliably each cause makes a code, and each hidden state, by their indices: a code of a class comes
 * with whatever makes the class's symptoms; where the sheet points at stations, what sits there makes it
 * more often.
 */
export function codeLinks(
  { class: about, stations = [], strength = 'nearly always', listed }: CodeSeen,
  causes: readonly TroubleCause[],
  hidden: readonly HiddenSign[] = [],
): { leak: number; links: ReadonlyMap<number, number>; byState: ReadonlyMap<number, number> } {
  const { shows } = codeClassById(about);
  const ofState = hidden.map((state) =>
    Math.max(
      0,
      ...shows.filter((sign) => !NO_CODE.includes(sign)).map((sign) => state.shows[sign] ?? 0),
    ),
  );
  const direct = causes.map(({ makes }) =>
    Math.max(0, ...shows.map((symptom) => strengthOf(makes[symptom]))),
  );
  const ofClass = causes.map(({ makes }, i) =>
    Math.max(direct[i]!, ...hidden.map(({ id }, k) => strengthOf(makes[id]) * ofState[k]!)),
  );
  // A station where nothing of the class can be wrong is pointed at for whatever else is there.
  const blank = stations.filter(
    (place) => !causes.some(({ station }, i) => station === place && ofClass[i]! > 0),
  );
  const links = new Map<number, number>();
  causes.forEach(({ station }, i) => {
    const pointed = stations.includes(station);
    const full =
      pointed && ofClass[i]! > 0 ? Math.max(direct[i]!, STRENGTHS[strength]) : direct[i]!;
    const link = blank.includes(station)
      ? STRENGTHS[strength] * ELSEWHERE
      : full * (pointed || stations.length === 0 ? 1 : ELSEWHERE);
    if (link > 0) links.set(i, listed ? link : link * PICKED);
  });
  const share = (listed ? 1 : PICKED) * (stations.length === 0 ? 1 : ELSEWHERE);
  const byState = new Map(
    ofState.flatMap((strength, k) => (strength > 0 ? [[k, strength * share] as const] : [])),
  );
  return { leak: listed ? LEAK.listed : LEAK.picked, links, byState };
}
