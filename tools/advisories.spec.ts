import { expect, it } from 'vitest';
// @ts-expect-error a script without types
import { weaknessesIn } from './advisories.mjs';

/** As npm writes it (report version 2, from memory of its documentation); the packages are invented. */
const report = (severity: string) => ({
  auditReportVersion: 2,
  vulnerabilities: {
    spool: {
      name: 'spool',
      severity,
      range: '<2.0.1',
      via: [{ title: 'Unwinds without end' }, 'bobbin'],
    },
  },
});

it('names what is high or critical, and lets the rest be', () => {
  expect(weaknessesIn(report('high'))).toEqual([
    'spool <2.0.1: high, Unwinds without end; by bobbin',
  ]);
  expect(weaknessesIn(report('moderate'))).toEqual([]);
  expect(weaknessesIn({ auditReportVersion: 2, vulnerabilities: {} })).toEqual([]);
});

it('is silent of what it could not ask', () => {
  expect(weaknessesIn({ message: '405 Method Not Allowed', statusCode: 405 })).toBeUndefined();
  expect(weaknessesIn(undefined)).toBeUndefined();
});
