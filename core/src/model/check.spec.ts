import { describe, expect, it } from 'vitest';
import { check } from './check.js';

const machine = {
  name: 'Washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
};
const entry = {
  kind: 'load',
  at: '2026-03-01T09:30:00Z',
  machineId: '9b2f7a2e-6a39-4f3e-9d54-5b1f6a0c1d11',
};

describe('check', () => {
  it('finds nothing wrong with what is right', () => {
    expect(check('MachineDraft', machine)).toEqual([]);
    expect(check('EntryDraft', entry)).toEqual([]);
  });

  it.each([
    ['loadsPerWeek', -1, 'Give a number from 0 to 70.'],
    ['loadsPerWeek', 71, 'Give a number from 0 to 70.'],
    ['loadsPerWeek', NaN, 'Give a number.'],
    ['loadsPerWeek', Infinity, 'Give a number.'],
    ['loadsPerWeek', null, 'Give a number.'],
    ['loadsPerWeek', '5', 'Give a number.'],
    ['name', '', 'Write something here.'],
    ['name', '   ', 'This is empty or has signs that do not belong here.'],
    ['name', 'x'.repeat(61), 'At most 60 characters.'],
    ['habits', ['pets', 'pets'], 'The same thing is here twice.'],
    ['inUseSince', '2026-02-30', 'Give a date, such as 2026-03-01.'],
    ['wings', 2, 'There is no such field.'],
  ])('says beside %s what is wrong with %j', (field, value, message) => {
    expect(check('MachineDraft', { ...machine, [field]: value })).toEqual([{ field, message }]);
  });

  it('names the kinds there are', () => {
    const [problem] = check('MachineDraft', { ...machine, kind: 'mangle' });
    expect(problem).toMatchObject({ field: 'kind' });
    expect(problem!.message).toContain('heat-pump-dryer');
  });

  it('names what is missing, and each field once', () => {
    const fields = check('MachineDraft', {}).map(({ field }) => field);
    expect(fields.sort()).toEqual(['features', 'habits', 'kind', 'loadsPerWeek', 'name', 'place']);
  });

  it('finds the place in what is nested', () => {
    const household = { name: 'H', zone: 'UTC', units: 'metric', school: 'steady', risk: 0.1 };
    const machines = [machine, { ...machine, loadsPerWeek: -3 }];
    expect(check('SetupDraft', { household, machines })).toEqual([
      { field: 'machines.1.loadsPerWeek', message: 'Give a number from 0 to 70.' },
    ]);
  });

  it.each([
    ['at', 'yesterday'],
    ['at', '2026-13-01T00:00:00Z'],
    ['machineId', 'washer'],
    ['count', 0],
    ['count', 1.5],
    ['count', 51],
    ['grade', 5],
    ['kind', 'dance'],
  ])('refuses an entry whose %s is %j', (field, value) => {
    expect(check('EntryDraft', { ...entry, [field]: value }).map((one) => one.field)).toEqual([
      field,
    ]);
  });

  it('is not troubled by what is no object at all', () => {
    for (const value of [null, 7, 'x', [], undefined]) {
      expect(check('EntryDraft', value)).toEqual([{ field: '', message: 'Give an object.' }]);
    }
  });
});
