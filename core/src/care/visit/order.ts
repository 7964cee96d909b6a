import { demandsOf, effectsOf, type Body, type Demand } from '../../world/acts.js';
import type { Change, Fact, Facts } from '../../world/facts.js';
import { meetingIn } from '../../world/products.js';
import { startWorld, step as stepInWorld, type World } from '../../world/world.js';
import type { VisitStep } from './visit-step.js';

/*
 * The order of a visit follows from what its steps need and do. Pieces of work that hang together (a
 * set-up, a task up to where something soaks, its rest, a proof) are laid one after the other: of those
 * whose needs are met, that take nothing away which another still needs, that may bring nothing to what
 * it must not meet, and that have to wait for nothing, the first in the natural order.
 *
 *   set-ups > what has to dry > the tasks > set-ups undone > proofs > the hot cycle > what only the next load tells
 */

/** Steps that stay together. */
export interface Piece {
  steps: readonly VisitStep[];
  /** Its place in the natural order: the class first, then the place within it. */
  rank: readonly [PieceClass, number];
  /** The piece that has to come before. */
  after?: Piece;
}

/** The classes of the natural order: dry before wet, the work before the proof, the heat last. */
export type PieceClass = 0 | 1 | 2 | 3 | 4 | 5 | 6;
export const CLASSES = {
  setUp: 0,
  drying: 1,
  work: 2,
  undo: 3,
  proof: 4,
  heat: 5,
  later: 6,
} as const satisfies Record<string, PieceClass>;

/** Waiting for so long or longer is filled with anything; less only with other cleaning. Minutes. */
export const LONG_WAIT = 30;

/** What a piece needs before it begins, and what is so after it. */
interface Known {
  piece: Piece;
  demands: readonly Demand[];
  effects: Change;
}

function known(piece: Piece, body: Body): Known {
  const demands: Demand[] = [];
  let effects: Change = {};
  for (const { step } of piece.steps) {
    const open = demandsOf(step.acts, body).filter(
      ({ fact, values }) => !values.includes(effects[fact] ?? '') && effects[fact] === undefined,
    );
    demands.push(...open);
    effects = { ...effects, ...effectsOf(step.acts) };
  }
  return { piece, demands, effects };
}

/**
 * Lays the pieces of one machine’s visit in order.
 * @returns their steps; where needs contradict each other, in the natural order from there on
 */
export function inOrder(pieces: readonly Piece[], body: Body): VisitStep[] {
  let pending = pieces.map((piece) => known(piece, body));
  const done = new Set<Piece>();
  const steps: VisitStep[] = [];
  let world = startWorld();
  const maker = new Map<Fact, string>();
  while (pending.length > 0) {
    const open = pending
      .filter(({ piece }) => !piece.after || done.has(piece.after))
      .sort((a, b) => byRank(a.piece, b.piece));
    const chosen = firstOf(open, pending, world) ?? open[0]!;
    for (const one of chosen.piece.steps) {
      if (isSoAlready(one, world.facts, maker)) continue;
      steps.push(one);
      for (const fact of Object.keys(effectsOf(one.step.acts)))
        maker.set(fact as Fact, ownerOf(one));
      world = one.step.later ? world : stepInWorld(world, one.step, body).world;
    }
    done.add(chosen.piece);
    pending = pending.filter((one) => one !== chosen);
  }
  return steps;
}

/** The task or set-up that a step belongs to. */
const ownerOf = ({ key }: VisitStep): string => key.slice(0, key.lastIndexOf('/'));

/** Whether a step only makes so what another task has made so. */
function isSoAlready(one: VisitStep, facts: Facts, maker: ReadonlyMap<Fact, string>): boolean {
  const { acts, note } = one.step;
  const { at, needs, does = {}, touches, waits, ...more } = acts;
  void [at, needs, touches, waits];
  const changed = Object.keys(does) as Fact[];
  return (
    changed.length > 0 &&
    Object.keys(more).length === 0 &&
    note === undefined &&
    changed.every((fact) => facts[fact] === does[fact] && maker.get(fact) !== ownerOf(one))
  );
}

const byRank = ({ rank: [a, b] }: Piece, { rank: [c, d] }: Piece): number => a - c || b - d;

const isMet = ({ demands }: Known, facts: Facts): boolean =>
  demands.every(({ fact, values }) => values.includes(facts[fact]));

/** Whether a piece takes away what another still needs and nothing gives back. */
function threatens(one: Known, facts: Facts, pending: readonly Known[]): boolean {
  const changed = (Object.keys(one.effects) as Fact[]).filter(
    (fact) => one.effects[fact] !== facts[fact],
  );
  return changed.some((fact) => {
    const lost = (values: readonly string[]) =>
      values.includes(facts[fact]) && !values.includes(one.effects[fact]!);
    return pending.some(
      (other) =>
        other !== one &&
        !isLater(other.piece) &&
        other.demands.some((demand) => demand.fact === fact && lost(demand.values)) &&
        !pending.some((giver) => giver !== one && giver.effects[fact] === facts[fact]),
    );
  });
}

const isLater = ({ steps: [first] }: Piece): boolean => first!.step.later === true;

/**
 * The first that can be done now and need not wait. A wait is filled with other cleaning, a long one with
 * anything; where nothing fills it, it is waited.
 */
function firstOf(
  open: readonly Known[],
  pending: readonly Known[],
  world: World,
): Known | undefined {
  let waited: Known | undefined;
  let wait = 0;
  for (const one of open) {
    const filler = !waited || wait >= LONG_WAIT || one.piece.rank[0] <= CLASSES.work;
    if (isLater(one.piece) || !filler) continue;
    if (!isMet(one, world.facts) || threatens(one, world.facts, pending)) continue;
    if (
      meetingIn(
        world.products,
        one.piece.steps.map(({ step }) => step),
      )
    )
      continue;
    const minutes = waitOf(one, world);
    if (minutes === 0) return one;
    waited ??= one;
    wait ||= minutes;
  }
  return waited;
}

/** Minutes until what a piece touches has soaked or dried. */
function waitOf({ piece }: Known, { busy, clock }: World): number {
  const parts = piece.steps.flatMap(({ step }) => step.acts.touches ?? []);
  return Math.max(0, ...parts.map((part) => (busy[part]?.until ?? clock) - clock));
}

/** Cuts a chain of steps where something is left to soak or dry, before the next that touches it. */
export function piecesOf(steps: readonly VisitStep[], rank: Piece['rank'], after?: Piece): Piece[] {
  const chain = meanwhileFirst(steps);
  const pieces: Piece[] = [];
  let from = 0;
  const cut = (to: number) => {
    if (to <= from) return;
    const last = pieces.at(-1) ?? after;
    pieces.push({ steps: chain.slice(from, to), rank, ...(last ? { after: last } : {}) });
    from = to;
  };
  const waiting = new Set<string>();
  chain.forEach(({ step: { acts } }, i) => {
    if (acts.waits || (acts.touches && waiting.delete(acts.touches))) cut(i);
    const left = acts.soaks ?? acts.dries;
    if (left) waiting.add(left.part);
  });
  cut(chain.length);
  return pieces;
}

/** Within a task: after a soak comes first what does not touch what soaks. */
function meanwhileFirst(steps: readonly VisitStep[]): readonly VisitStep[] {
  const at = steps.findIndex(({ step }) => step.acts.soaks);
  const soaks = steps[at]?.step.acts.soaks;
  if (!soaks) return steps;
  const rest = steps.slice(at + 1);
  const touches = ({ step: { acts } }: VisitStep) => acts.touches === soaks.part;
  const first = rest.findIndex(touches);
  if (first < 0) return steps;
  const until = rest.findIndex((one, i) => i > first && touches(one));
  const movable = rest.slice(first + 1, until < 0 ? undefined : until);
  return [
    ...steps.slice(0, at + 1),
    ...rest.slice(0, first),
    ...movable,
    rest[first]!,
    ...rest.slice(first + 1 + movable.length),
  ];
}
