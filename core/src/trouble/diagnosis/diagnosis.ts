import type { Answer, MachineKind } from '../../model/vocabulary.js';
import { STRENGTHS, type Check, type Symptom, type TroubleCause } from '../data/types.js';
import { CHECKS } from '../data/checks.js';
import { SYMPTOMS } from '../data/symptoms.js';
import { HIDDEN_STATES } from '../data/states.js';
import type { CauseBelief } from './hypotheses.js';
import { Network, noisyOr } from './network.js';
import { codeFinding, codeLinks, sayCode } from '../codes/evidence.js';
import { causesOf, priorOf, type Situation } from './priors.js';

/** Answers by symptom or check. */
export type Answers = Readonly<Record<string, Answer>>;

/** What can be noticed on a kind of machine. */
export const symptomsOf = (kind: MachineKind): Symptom[] =>
  SYMPTOMS.filter(({ kinds }) => kinds.includes(kind));

/** Whether a kind of machine has a symptom or check of this id. */
export const isFinding = (id: string, kind: MachineKind): boolean =>
  [...SYMPTOMS, ...CHECKS].some((one) => one.id === id && one.kinds.includes(kind));

/** Whether an id is that of a symptom. */
export const isSymptom = (id: string): boolean => SYMPTOMS.some((one) => one.id === id);

/** The words of a symptom, or the question of a check. @throws RangeError for an unknown one */
export function sayFinding(id: string): string {
  const symptom = SYMPTOMS.find((one) => one.id === id);
  if (symptom) return symptom.say;
  const check = CHECKS.find((one) => one.id === id);
  if (!check) throw new RangeError(`There is no finding "${id}".`);
  return check.ask;
}

/** A strength word as a chance, 0 to 1. */
export const strengthOf = (link: keyof typeof STRENGTHS | number): number =>
  typeof link === 'number' ? link : STRENGTHS[link];

/** How reliably, by the index of a cause or of a state. */
type Links = ReadonlyMap<number, number>;

/** One machine in trouble: its causes, what can be asked, and what is believed after some answers. */
export class Diagnosis {
  readonly causes: readonly TroubleCause[];
  readonly checks: readonly Check[];
  readonly network: Network;
  /** What each finding is made by, itself or by a hidden state: by its id, indices of the causes. */
  readonly #makers = new Map<string, ReadonlySet<number>>();
  readonly #codes: Readonly<Record<string, string>>;
  /** Causes, by index, that were put right, and the trouble went on. */
  readonly failed: readonly number[];

  constructor(readonly situation: Situation) {
    const { kind, codes = [], ruledOut = [] } = situation;
    this.causes = causesOf(situation);
    this.failed = this.causes.flatMap(({ id }, i) => (ruledOut.includes(id) ? i : []));
    const made = new Set(this.causes.flatMap(({ makes }) => Object.keys(makes)));
    this.checks = CHECKS.filter(({ id, kinds }) => kinds.includes(kind) && made.has(id));
    const hidden = HIDDEN_STATES.filter(({ kinds }) => kinds.includes(kind));
    const statesOf = new Map(hidden.map(({ id }) => [id, this.#linksTo(id)]));
    const finding = (id: string, leak: number, links: Links, byState: Links) => {
      const through = [...byState.keys()].flatMap((i) => [...statesOf.get(hidden[i]!.id)!.keys()]);
      this.#makers.set(id, new Set([...links.keys(), ...through]));
      return noisyOr(id, leak, links, byState);
    };
    const findings = [...symptomsOf(kind), ...this.checks].map(({ id, leak }) =>
      finding(
        id,
        leak,
        this.#linksTo(id),
        new Map(
          hidden.flatMap(({ shows: { [id]: strength } }, i) =>
            strength === undefined ? [] : [[i, strength] as const],
          ),
        ),
      ),
    );
    const seen = codes.map((code, i) => {
      const { leak, links, byState } = codeLinks(code, this.causes, hidden);
      return finding(codeFinding(i), leak, links, byState);
    });
    this.#codes = Object.fromEntries(codes.map((code, i) => [codeFinding(i), sayCode(code)]));
    this.network = new Network(
      this.causes.map((cause) => ({ id: cause.id, prior: priorOf(cause, situation) })),
      [...findings, ...seen],
      2,
      hidden.map(({ id, leak }) => noisyOr(id, leak, statesOf.get(id)!)),
    );
  }

  #linksTo(id: string): Links {
    return new Map(
      this.causes.flatMap(({ makes }, i) => {
        const link = makes[id];
        return link === undefined ? [] : [[i, strengthOf(link)] as const];
      }),
    );
  }

  /** Every answer that this machine can give, the codes it showed among them. */
  evidence(answers: Answers): [finding: string, answer: Answer][] {
    return [
      ...Object.entries(answers).filter(([finding]) => this.network.knows(finding)),
      ...Object.keys(this.#codes).map((id): [string, Answer] => [id, 'yes']),
    ];
  }

  /** The words of a finding of this case. */
  say(finding: string): string {
    return this.#codes[finding] ?? sayFinding(finding);
  }

  /**
   * Which causes make anything of what was seen, by index; all of them while nothing was. The others
   * may be there as well, but not as the trouble that was told.
   */
  explaining(answers: Answers): boolean[] {
    const seen = this.evidence(answers)
      .filter(([, answer]) => answer === 'yes' || answer === 'partly')
      .map(([finding]) => this.#makers.get(finding)!);
    return this.causes.map((_, i) => seen.length === 0 || seen.some((makers) => makers.has(i)));
  }

  /** Whether a check is one of this machine's. */
  asks(check: string): boolean {
    return this.checks.some(({ id }) => id === check);
  }

  /** Whether a check says something of any of some causes. @param marked by index of the cause */
  tellsOf(check: string, marked: readonly boolean[]): boolean {
    return [...(this.#makers.get(check) ?? [])].some((cause) => marked[cause]);
  }

  /** Answers to what this machine cannot show are passed over. */
  believe(answers: Answers, failed = this.failed): CauseBelief {
    return this.network.believe(this.evidence(answers), failed);
  }
}
