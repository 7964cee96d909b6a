import type { Answer, MachineKind } from '../../model/vocabulary.js';
import { STRENGTHS, type Check, type Symptom, type TroubleCause } from '../data/types.js';
import { CHECKS } from '../data/checks.js';
import { SYMPTOMS } from '../data/symptoms.js';
import { Network, noisyOr, type CauseBelief } from './network.js';
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

const strengthOf = (link: keyof typeof STRENGTHS | number): number =>
  typeof link === 'number' ? link : STRENGTHS[link];

/** One machine in trouble: its causes, what can be asked, and what is believed after some answers. */
export class Diagnosis {
  readonly causes: readonly TroubleCause[];
  readonly checks: readonly Check[];
  readonly network: Network;
  /** What each finding is made by: by its id, how reliably by each cause's index. */
  readonly #links = new Map<string, ReadonlyMap<number, number>>();
  readonly #codes: Readonly<Record<string, string>>;

  constructor(readonly situation: Situation) {
    const { kind, codes = [] } = situation;
    this.causes = causesOf(situation);
    const made = new Set(this.causes.flatMap(({ makes }) => Object.keys(makes)));
    this.checks = CHECKS.filter(({ id, kinds }) => kinds.includes(kind) && made.has(id));
    const findings = [...symptomsOf(kind), ...this.checks].map(({ id, leak }) =>
      this.#finding(
        id,
        leak,
        new Map(
          this.causes.flatMap(({ makes }, i) => {
            const link = makes[id];
            return link === undefined ? [] : [[i, strengthOf(link)] as const];
          }),
        ),
      ),
    );
    const seen = codes.map((code, i) => {
      const { leak, links } = codeLinks(code, this.causes);
      return this.#finding(codeFinding(i), leak, links);
    });
    this.#codes = Object.fromEntries(codes.map((code, i) => [codeFinding(i), sayCode(code)]));
    this.network = new Network(
      this.causes.map((cause) => ({ id: cause.id, prior: priorOf(cause, situation) })),
      [...findings, ...seen],
    );
  }

  #finding(id: string, leak: number, links: ReadonlyMap<number, number>) {
    this.#links.set(id, links);
    return noisyOr(id, leak, links);
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
      .map(([finding]) => this.#links.get(finding)!);
    return this.causes.map((_, i) => seen.length === 0 || seen.some((links) => links.has(i)));
  }

  /** Whether a check is one of this machine's. */
  asks(check: string): boolean {
    return this.checks.some(({ id }) => id === check);
  }

  /** Whether a check says something of any of some causes. @param marked by index of the cause */
  tellsOf(check: string, marked: readonly boolean[]): boolean {
    return [...(this.#links.get(check)?.keys() ?? [])].some((cause) => marked[cause]);
  }

  /** Answers to what this machine cannot show are passed over. */
  believe(answers: Answers): CauseBelief {
    return this.network.believe(this.evidence(answers));
  }
}
