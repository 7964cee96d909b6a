import type { Waiting } from './device';
import { fromAddress, houseAddress, inAddress } from './moving';

const load = (n: number): Waiting => ({
  id: `id-${n}`,
  kind: 'load',
  machineId: 'm',
  at: '2026-06-01T10:00:00Z',
  note: 'Über & # = ?',
});

describe('what goes along to the safe address', () => {
  it('comes out as it went in, but for photos', () => {
    const waiting: Waiting[] = [
      load(1),
      { photo: 'p', picture: new Blob(['x']) },
      { undo: 'id-0' },
      {
        news: {
          id: 'c',
          machineId: 'm',
          events: [{ id: 'e', at: '2026-06-01T10:00:00Z', kind: 'no-stop' }],
        },
      },
    ];
    expect(fromAddress(`#AB12-CD34&${inAddress(waiting)}`)).toEqual({
      code: 'AB12-CD34',
      waiting: [waiting[0], waiting[2], waiting[3]],
    });
  });

  it('is as much as an address takes, the oldest first, and nothing where nothing waits', () => {
    const many = Array.from({ length: 1000 }, (_, n) => load(n));
    const text = inAddress(many);
    expect(text.length).toBeLessThanOrEqual(60_000);
    const { waiting } = fromAddress(`#&${text}`);
    expect(waiting.length).toBeGreaterThan(100);
    expect(waiting).toEqual(many.slice(0, waiting.length));
    expect(inAddress([])).toBe('');
  });

  it.each([
    '#%E0%A4%A',
    '#&waiting=%E0%A4%A',
    '#&waiting=[',
    '#&waiting=5',
    '#&waiting=[null,5,{}]',
    '',
  ])('is nothing where the address is none of ours: %s', (hash) => {
    expect(fromAddress(hash).waiting).toEqual([]);
  });
});

it.each([
  [' https://192.168.1.20:4311/house/phones ', 'https://192.168.1.20:4311'],
  ['HTTP://Needlecase.local:4310', 'http://needlecase.local:4310'],
  ['needlecase.local', undefined],
  ['javascript:alert(1)', undefined],
  ['https://', undefined],
])('reads the address %j as it is typed', (typed, origin) => {
  expect(houseAddress(typed)).toBe(origin);
});
