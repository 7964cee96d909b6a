import { INSTRUMENTS, type Machine } from '@needlecase/core';
import { of, throwError } from 'rxjs';
import type { HouseholdService } from '../data/household.service';
import { makeIndex } from './find-index';

const washer = {
  id: 'w1',
  version: 1,
  name: 'Cellar washer',
  kind: 'front-load-washer',
  place: 'Cellar',
  features: {},
  habits: [],
  loadsPerWeek: 5,
} satisfies Machine;
const service = (machines: Machine[]) =>
  ({ machines: () => of(machines) }) as unknown as HouseholdService;

describe('find', () => {
  it.each([
    ['cellar', '/machine/w1'],
    ['front-load', '/machine/w1'],
    ['gasket', '/machine/w1/gasket'],
    ['pump filt', '/machine/w1/pump-filter'],
    ['gaskt', '/machine/w1/gasket'],
    ['history', '/log'],
    ...INSTRUMENTS.map(({ name, title }) => [title, `/measure/${name}`]),
    ['how many trays', '/measure/tub-water'],
  ])('finds “%s”', async (typed, url) => {
    const index = await makeIndex(service([washer]));
    expect(index.find(typed).map((place) => place.url)).toContain(url);
  });

  it('takes ten thousand letters for the first two hundred, at once', async () => {
    const index = await makeIndex(service([washer]));
    const began = performance.now();
    expect(index.find(`gasket ${'x'.repeat(10_000)}`)).not.toEqual([]);
    expect(index.find('ab '.repeat(4000))).toBeDefined();
    expect(performance.now() - began).toBeLessThan(1000);
  });

  it('finds nothing in nonsense, and the views when the machines cannot be read', async () => {
    const broken = {
      machines: () => throwError(() => new Error('away')),
    } as unknown as HouseholdService;
    const index = await makeIndex(broken);
    expect(index.find('xyzzyqwv')).toEqual([]);
    expect(index.find('house').map(({ url }) => url)).toContain('/house');
  });
});
