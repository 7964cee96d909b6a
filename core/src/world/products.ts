import { meetings, type ChemicalEvent } from '../chemistry/guard.js';
import { productById } from '../chemistry/products.js';
import type { Acts, Law, Part } from './acts.js';

/** A cleaning product where it was put, until it is rinsed away. */
export interface InPlace {
  product: string;
  /** In the machine, or at the sink: what lies in the same place meets. */
  place: 'machine' | 'sink';
  /** What it is on; absent in the drum. */
  part?: Part;
  /** Minutes of the world's clock: put there, and worked as long as it should. */
  since: number;
  until: number;
}

/** A step as the world needs it: what it is to the machine, what may be used at it, what it rinses. */
export interface Doing {
  acts: Acts;
  brings?: { products: readonly string[] };
  rinses?: 'all' | 'station';
}

const placeOf = ({ at }: Acts): InPlace['place'] => (at === 'apart' ? 'sink' : 'machine');

/** What a step brings that makes something dangerous of what still lies in the same place. */
export function meetingAt(
  there: readonly InPlace[],
  { acts }: Doing,
  used: readonly string[],
): { law: Law; what: string }[] {
  if (used.length === 0) return [];
  const present = there
    .filter(({ place }) => place === placeOf(acts))
    .map(({ product, since }): ChemicalEvent => {
      const { actives } = productById(product);
      return { entryId: product, at: since, kind: 'chemical', product, actives };
    });
  const [met] = used.flatMap((product) =>
    meetings(productById(product).actives, present).map((meeting) => ({ product, meeting })),
  );
  return met
    ? [
        {
          law: 'products meet',
          what: `${met.product} on ${met.meeting.present.product}: ${met.meeting.rule.gives}`,
        },
      ]
    : [];
}

/**
 * What lies where after a step: running water takes it off a part, a programme with water out of the
 * machine; a part that goes back takes along what is on it.
 * @param clock minutes
 */
export function afterUse(
  there: readonly InPlace[],
  { acts, rinses }: Doing,
  used: readonly string[],
  clock: number,
): readonly InPlace[] {
  const { runs, touches, does, soaks } = acts;
  const washed = runs === 'rinse' || runs === 'hot';
  const left = there
    .filter(({ place }) => !(washed && place === 'machine'))
    .filter(({ part }) => !(rinses === 'station' && part === touches))
    .map((one) =>
      does && one.part === touches && touches && placeOf(acts) === 'machine'
        ? { ...one, place: 'machine' as const }
        : one,
    );
  const part = soaks?.part ?? touches;
  return [
    ...left,
    ...used.map((product) => ({
      product,
      place: placeOf(acts),
      ...(part ? { part } : {}),
      since: clock,
      until: clock + (soaks?.minutes ?? 0),
    })),
  ];
}

/** Whether steps, one after the other, may bring something to what it must not meet. */
export function meetingIn(there: readonly InPlace[], steps: readonly Doing[]): boolean {
  if (!steps.some(({ brings }) => brings)) return false;
  let present = there;
  return steps.some((one) => {
    const used = one.brings?.products ?? [];
    const met = meetingAt(present, one, used).length > 0;
    present = afterUse(present, one, used, 0);
    return met;
  });
}
