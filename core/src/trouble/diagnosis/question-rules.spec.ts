import { describe, expect, it } from 'vitest';
import { machine } from '../../model/testing.js';
import { MACHINE_KINDS } from '../../model/vocabulary.js';
import { CHECKS } from '../data/checks.js';
import { STOP_RULES } from '../data/stops.js';
import { SYMPTOMS } from '../data/symptoms.js';
import { isFinding } from './diagnosis.js';
import { checkTroubleQuestion } from './question-rules.js';

const FINDINGS = [...SYMPTOMS, ...CHECKS].map(({ id }) => id);
const ID = machine('front-load-washer').id;

describe('a question about a machine in trouble', () => {
  it.each(MACHINE_KINDS)('of a %s may tell every finding of its kind, and no other', (kind) => {
    const [fit, strange] = [true, false].map((wanted) =>
      FINDINGS.filter((id) => isFinding(id, kind) === wanted),
    );
    expect(fit!.length).toBeGreaterThan(0);
    expect(strange!.length).toBeGreaterThan(0);
    const answers = (ids: string[]) => Object.fromEntries(ids.map((id) => [id, 'yes' as const]));
    expect(checkTroubleQuestion({ kind, answers: answers(fit!) }, undefined)).toEqual([]);
    expect(
      checkTroubleQuestion({ kind, answers: answers(strange!) }, undefined).map(
        ({ field }) => field,
      ),
    ).toEqual(strange!.map((id) => `answers.${id}`));
  });

  it.each(MACHINE_KINDS)('of a %s may hold each stop rule of its kind, and no other', (kind) => {
    for (const { id, kinds } of STOP_RULES) {
      const problems = checkTroubleQuestion({ kind, answers: {}, stops: [id] }, undefined);
      expect(problems.map(({ field }) => field)).toEqual(kinds.includes(kind) ? [] : ['stops']);
    }
    expect(
      checkTroubleQuestion({ kind, answers: {}, stops: ['boredom'] }, undefined)[0]?.message,
    ).toContain('boredom');
  });

  it('names a machine or a kind, and the machine’s own kind is what counts', () => {
    expect(checkTroubleQuestion({ answers: {} }, undefined)[0]?.field).toBe('kind');
    expect(checkTroubleQuestion({ machineId: ID, answers: {} }, undefined)[0]?.field).toBe(
      'machineId',
    );
    const dryer = machine('vented-dryer');
    const answers = { 'drains-slowly': 'yes' as const };
    const told = { machineId: ID, kind: 'front-load-washer' as const, answers };
    expect(checkTroubleQuestion(told, dryer)[0]?.field).toBe('answers.drains-slowly');
  });

  it('looks a code up for a machine, whose sheets are known, not for a kind', () => {
    const washer = machine('front-load-washer');
    const ask = { code: 'HEM-18', answers: {} };
    expect(checkTroubleQuestion({ ...ask, machineId: ID }, washer)).toEqual([]);
    expect(checkTroubleQuestion({ ...ask, kind: 'front-load-washer' }, undefined)[0]?.field).toBe(
      'code',
    );
  });
});
