import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
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

describe('hidden states', () => {
  it('equal plain enumeration over causes and states, on random networks', () => {
    const chance = fc.double({ min: 0.01, max: 0.95, noNaN: true });
    const some = (length: number) => fc.array(chance, { minLength: length, maxLength: length });
    const table = (rows: number, columns: number) =>
      fc.array(some(columns), { minLength: rows, maxLength: rows });
    const sizes = fc.tuple(
      fc.integer({ min: 1, max: 4 }),
      fc.integer({ min: 1, max: 2 }),
      fc.integer({ min: 1, max: 4 }),
    );
    const drawn = sizes.chain(([causes, states, findings]) =>
      fc.record({
        priors: fc.array(fc.double({ min: 0.01, max: 0.6, noNaN: true }), {
          minLength: causes,
          maxLength: causes,
        }),
        made: table(states, causes),
        leaks: some(findings),
        links: table(findings, causes),
        shows: table(findings, states),
        answers: fc.array(fc.constantFrom<Answer>('yes', 'no', 'unknown'), {
          minLength: findings,
          maxLength: findings,
        }),
      }),
    );
    const byIndex = (row: readonly number[]) => new Map(row.map((value, i) => [i, value]));
    fc.assert(
      fc.property(drawn, ({ priors, made, leaks, links, shows, answers }) => {
        const built = new Network(
          priors.map((prior, i) => ({ id: `c${i}`, prior })),
          leaks.map((leak, f) => noisyOr(`f${f}`, leak, byIndex(links[f]!), byIndex(shows[f]!))),
          2,
          made.map((row, i) => noisyOr(`s${i}`, 0.01, byIndex(row))),
        );
        const belief = built.believe(answers.map((answer, f) => [`f${f}`, answer] as const));
        const missed = (leak: number, rows: [readonly number[], readonly boolean[]][]) =>
          rows.reduce(
            (all, [row, is]) => row.reduce((m, value, i) => (is[i] ? m * (1 - value) : m), all),
            1 - leak,
          );
        const bits = (n: number, length: number) =>
          Array.from({ length }, (_, i) => Math.floor(n / 2 ** i) % 2 === 1);
        let total = 0;
        const sums = priors.map(() => 0);
        for (let c = 0; c < 2 ** priors.length; c++) {
          const present = bits(c, priors.length);
          if (present.filter(Boolean).length > 2) continue;
          for (let h = 0; h < 2 ** made.length; h++) {
            const how = bits(h, made.length);
            let weight = 1;
            priors.forEach((prior, i) => (weight *= present[i] ? prior : 1 - prior));
            made.forEach((row, i) => {
              const not = missed(0.01, [[row, present]]);
              weight *= how[i] ? 1 - not : not;
            });
            answers.forEach((answer, f) => {
              const not = missed(leaks[f]!, [
                [links[f]!, present],
                [shows[f]!, how],
              ]);
              if (answer === 'yes') weight *= 1 - not;
              if (answer === 'no') weight *= not;
            });
            total += weight;
            present.forEach((here, i) => here && (sums[i]! += weight));
          }
        }
        sums.forEach((sum, i) => expect(belief.causes[i]).toBeCloseTo(sum / total, 10));
      }),
      { numRuns: 60 },
    );
  });

  it('two signs of one state say hardly more than one; without the state they count twice', () => {
    const links = new Map([[0, 0.6]]);
    const causes = [
      { id: 'x', prior: 0.1 },
      { id: 'y', prior: 0.1 },
    ];
    const signs = ['a', 'b'];
    const shared = new Network(
      causes,
      signs.map((id) => noisyOr(id, 0.001, new Map(), new Map([[0, 0.98]]))),
      2,
      [noisyOr('state', 0.05, links)],
    );
    const apart = new Network(
      causes,
      signs.map((id) => noisyOr(id, 0.05, links)),
    );
    const of = (network: Network, ...seen: string[]) =>
      network.believe(seen.map((id) => [id, 'yes'] as const)).causes[0]!;
    expect(of(shared, 'a', 'b')).toBeCloseTo(of(shared, 'a'), 2);
    expect(of(apart, 'a', 'b')).toBeGreaterThan(of(apart, 'a') + 0.2);
  });

  it('after work that did not help, it was something else, or the other of two', () => {
    const built = new Network(
      [0.5, 0.1, 0.02].map((prior, i) => ({ id: `c${i}`, prior })),
      [
        noisyOr(
          'sign',
          0.01,
          new Map([
            [0, 0.9],
            [1, 0.9],
            [2, 0.9],
          ]),
        ),
      ],
    );
    const before = built.believe([['sign', 'yes']]);
    const after = built.afterFailed(before, 0);
    expect(after.causes[0]).toBeLessThan(0.12);
    expect(after.causes[1]).toBeGreaterThan(before.causes[1]! * 3);
    const told = built.believe([['sign', 'yes']], [0]).hypotheses;
    told.forEach((chance, h) => expect(after.hypotheses[h]).toBeCloseTo(chance, 12));
    expect(after.hypotheses.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 12);
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
  /** The same with "tuberculosis or cancer" as a hidden state, as it is published. */
  const either = {
    id: 'either',
    chance: (present: readonly number[]) => Number(isEither(present)),
  };
  const isEither = (present: readonly number[]) => present.some((cause) => cause < 2);
  const ofState: Finding[] = [
    { id: 'xray', chance: (_present, [is] = []) => (is ? XRAY.either : XRAY.neither) },
    {
      id: 'breath',
      chance: (present, [is] = []) => {
        if (present.includes(2)) return is ? BREATH.both : BREATH.bronchitis;
        return is ? BREATH.either : BREATH.neither;
      },
    },
  ];
  let hidden = false;
  const clinic = (asia: boolean, smokes: boolean) =>
    new Network(
      [
        { id: 'tuberculosis', prior: asia ? 0.05 : 0.01 },
        { id: 'cancer', prior: smokes ? 0.1 : 0.01 },
        { id: 'bronchitis', prior: smokes ? 0.6 : 0.3 },
      ],
      hidden ? ofState : findings,
      3,
      hidden ? [either] : [],
    );
  describe.each([false, true])('with hidden states: %s', (withStates) => {
    beforeEach(() => {
      hidden = withStates;
    });

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
      return {
        causes: causes.map((sum) => sum / total),
        xray: xray / total,
        breath: breath / total,
      };
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
});
