import { checkCaseEvents, checkSheet } from '@needlecase/core';
import { expect, it } from 'vitest';
import { CASES } from './cases.js';
import { CODE_SHEETS } from './code-sheets.js';
import { MACHINES } from './household.js';

it('has cases whose events are all in order, one open and one closed', () => {
  const now = Date.parse('2026-11-24T12:00:00Z');
  for (const { machine, events } of CASES) {
    const dated = events.map(({ daysAgo, hour: _hour, ...one }) => ({
      ...one,
      id: 'x',
      at: new Date(now - daysAgo * 86_400_000).toISOString(),
    }));
    expect(checkCaseEvents(dated, MACHINES[machine].kind, now)).toEqual([]);
    expect(dated.map(({ at }) => at)).toEqual(dated.map(({ at }) => at).sort());
  }
  expect(CASES.map(({ events }) => events.at(-1)!.kind === 'close')).toEqual([true, false]);
});

it('has three right code sheets, each fitting a machine of the house', () => {
  for (const sheet of CODE_SHEETS) {
    expect(checkSheet(sheet)).toEqual([]);
    expect(Object.values(MACHINES).some(({ maker }) => maker === sheet.maker)).toBe(true);
  }
});
