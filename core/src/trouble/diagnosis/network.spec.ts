import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Answer } from '../../model/vocabulary.js';
import { Network, noisyOr, type Finding } from './network.js';

describe('inference', () => {
  it('equals plain enumeration of none, one and two causes, on random networks', () => {
    const network = fc
      .tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 5 }))
      .chain(([causes, findings]) =>
        fc.record({
          priors: fc.array(fc.double({ min: 0.01, max: 0.6, noNaN: true }), {
            minLength: causes,
            maxLength: causes,
          }),
          leaks: fc.array(fc.double({ min: 0.01, max: 0.3, noNaN: true }), {
            minLength: findings,
            maxLength: findings,
          }),
          links: fc.array(
            fc.array(fc.double({ min: 0, max: 0.95, noNaN: true }), {
              minLength: causes,
              maxLength: causes,
            }),
            { minLength: findings, maxLength: findings },
          ),
          answers: fc.array(fc.constantFrom<Answer>('yes', 'no', 'unknown', 'partly'), {
            minLength: findings,
            maxLength: findings,
          }),
        }),
      );
    fc.assert(
      fc.property(network, ({ priors, leaks, links, answers }) => {
        const built = new Network(
          priors.map((prior, i) => ({ id: `c${i}`, prior })),
          leaks.map((leak, f) => noisyOr(`f${f}`, leak, new Map(links[f]!.map((s, i) => [i, s])))),
        );
        const belief = built.believe(answers.map((answer, f) => [`f${f}`, answer] as const));

        let total = 0;
        const sums = priors.map(() => 0);
        for (let bitsOf = 0; bitsOf < 2 ** priors.length; bitsOf++) {
          const present = priors.map((_, i) => Math.floor(bitsOf / 2 ** i) % 2 === 1);
          if (present.filter(Boolean).length > 2) continue;
          let weight = 1;
          priors.forEach((prior, i) => (weight *= present[i] ? prior : 1 - prior));
          answers.forEach((answer, f) => {
            let missed = 1 - leaks[f]!;
            present.forEach((here, i) => here && (missed *= 1 - links[f]![i]!));
            const yes = 1 - missed;
            if (answer === 'yes') weight *= yes;
            if (answer === 'no') weight *= 1 - yes;
            if (answer === 'partly') weight *= 0.7 * yes + 0.3 * (1 - yes);
          });
          total += weight;
          present.forEach((here, i) => here && (sums[i]! += weight));
        }
        sums.forEach((sum, i) => expect(belief.causes[i]).toBeCloseTo(sum / total, 10));
      }),
    );
  });

  it('does not mind the order of answers, nor answers given and taken back', () => {
    const built = new Network(
      [0.3, 0.1, 0.05].map((prior, i) => ({ id: `c${i}`, prior })),
      [
        noisyOr('a', 0.02, new Map([[0, 0.9]])),
        noisyOr(
          'b',
          0.02,
          new Map([
            [1, 0.6],
            [2, 0.2],
          ]),
        ),
        noisyOr(
          'c',
          0.02,
          new Map([
            [0, 0.3],
            [2, 0.9],
          ]),
        ),
      ],
    );
    const answers = [
      ['a', 'yes'],
      ['b', 'partly'],
      ['c', 'no'],
    ] as const;
    const one = built.believe(answers);
    const other = built.believe([...answers].reverse());
    one.causes.forEach((chance, i) => expect(other.causes[i]).toBeCloseTo(chance, 12));
    expect(built.believe([])).toEqual(built.believe([['b', 'unknown']]));
    const steps = built.after(built.after(built.believe([]), 'a', true), 'c', false);
    const whole = built.believe([
      ['a', 'yes'],
      ['c', 'no'],
    ]);
    whole.causes.forEach((chance, i) => expect(steps.causes[i]).toBeCloseTo(chance, 12));
  });

  it('expects to learn something from what parts the suspects, and nothing from what does not', () => {
    const built = new Network(
      [
        { id: 'x', prior: 0.4 },
        { id: 'y', prior: 0.4 },
      ],
      [noisyOr('parts', 0.01, new Map([[0, 0.95]])), noisyOr('same', 0.3, new Map())],
    );
    const belief = built.believe([]);
    expect(built.ahead(belief, 'parts').gain).toBeGreaterThan(0.5);
    expect(built.ahead(belief, 'same').gain).toBeCloseTo(0, 12);
  });

  it('says which prior or finding it cannot take', () => {
    expect(() => new Network([{ id: 'x', prior: 0 }], [])).toThrow('"x"');
    expect(() => new Network([], []).believe([['nothing', 'yes']])).toThrow('"nothing"');
  });
});

/**
 * The chest clinic of Lauritzen and Spiegelhalter, "Local computations with probabilities on graphical
 * structures", Journal of the Royal Statistical Society B 50 (1988): their tables, from memory.
 * Tuberculosis depends on a visit to Asia, lung cancer and bronchitis on smoking; the X-ray shows either
 * of the first two, and shortness of breath comes of either or of bronchitis.
 */
describe('the chest clinic (Lauritzen and Spiegelhalter 1988)', () => {
  const XRAY = { either: 0.98, neither: 0.05 };
  const BREATH = { both: 0.9, either: 0.7, bronchitis: 0.8, neither: 0.1 };
  const findings: Finding[] = [
    {
      id: 'xray',
      chance: (present) => (present.some((cause) => cause < 2) ? XRAY.either : XRAY.neither),
    },
    {
      id: 'breath',
      chance: (present) => {
        const either = present.some((cause) => cause < 2);
        if (present.includes(2)) return either ? BREATH.both : BREATH.bronchitis;
        return either ? BREATH.either : BREATH.neither;
      },
    },
  ];
  const clinic = (asia: boolean, smokes: boolean) =>
    new Network(
      [
        { id: 'tuberculosis', prior: asia ? 0.05 : 0.01 },
        { id: 'cancer', prior: smokes ? 0.1 : 0.01 },
        { id: 'bronchitis', prior: smokes ? 0.6 : 0.3 },
      ],
      findings,
      3,
    );
  /** Over those who smoke and those who do not, half and half; one in a hundred was in Asia. */
  function mixed(
    answers: [string, Answer][],
    asias: boolean[] = [true, false],
  ): { causes: number[]; xray: number; breath: number } {
    let total = 0;
    const causes = [0, 0, 0];
    let [xray, breath] = [0, 0];
    for (const asia of asias) {
      for (const smokes of [true, false]) {
        const network = clinic(asia, smokes);
        let weight = (asias.length === 1 ? 1 : asia ? 0.01 : 0.99) * 0.5;
        let before = network.believe([]);
        for (const [finding, answer] of answers) {
          const yes = network.chance(finding, before);
          weight *= answer === 'yes' ? yes : 1 - yes;
          before = network.after(before, finding, answer === 'yes');
        }
        total += weight;
        before.causes.forEach((chance, i) => (causes[i]! += weight * chance));
        xray += weight * network.chance('xray', before);
        breath += weight * network.chance('breath', before);
      }
    }
    return { causes: causes.map((sum) => sum / total), xray: xray / total, breath: breath / total };
  }

  it('has the published chances before anything is known', () => {
    const { causes, xray, breath } = mixed([]);
    expect(causes[0]).toBeCloseTo(0.0104, 4);
    expect(causes[1]).toBeCloseTo(0.055, 4);
    expect(causes[2]).toBeCloseTo(0.45, 4);
    expect(xray).toBeCloseTo(0.1103, 4);
    expect(breath).toBeCloseTo(0.436, 3);
  });

  it('has the published chances for one short of breath who was in Asia', () => {
    const { causes } = mixed([['breath', 'yes']], [true]);
    expect(causes[0]).toBeCloseTo(0.0877, 3);
    expect(causes[1]).toBeCloseTo(0.0995, 3);
    expect(causes[2]).toBeCloseTo(0.8114, 3);
  });
});
