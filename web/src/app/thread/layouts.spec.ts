import { MACHINE_KINDS, stationsOf, type StationState } from '@needlecase/core';
import { column, hasPlace, picture, strip } from './layouts';

const statesOf = (kind: (typeof MACHINE_KINDS)[number]): StationState[] =>
  stationsOf({ kind, features: {} }).map(({ id, name, line }) => ({
    id,
    name,
    line,
    status: 'none',
    said: '',
  }));

describe('layouts of the line drawing', () => {
  it.each(MACHINE_KINDS)(
    'knows a place for every station of a %s, inside the picture, none on another',
    (kind) => {
      const stations = statesOf(kind);
      for (const { id } of stations) expect(hasPlace(kind, id), id).toBe(true);
      const { placed, width, height, radius } = picture(kind, stations);
      for (const { x, y } of placed) {
        expect(x > radius && x < width - radius && y > radius && y < height - radius).toBe(true);
      }
      for (const a of placed) {
        for (const b of placed) {
          if (a !== b) expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(2 * radius);
        }
      }
    },
  );

  it('keeps a strip to its height, from one station to twelve', () => {
    const [first] = statesOf('front-load-washer');
    for (const count of [1, 2, 8, 12]) {
      const { placed, height, radius } = strip(Array<StationState>(count).fill(first!), 600);
      expect(height).toBe(60);
      for (const { x, y } of placed) {
        expect(x).toBeGreaterThanOrEqual(radius);
        expect(x).toBeLessThanOrEqual(600 - radius);
        expect(y + radius).toBeLessThanOrEqual(height);
      }
    }
  });

  it('gives a column room for every name', () => {
    const stations = statesOf('vented-dryer');
    const { placed, height } = column(stations, 360);
    expect(placed.at(-1)!.y).toBeLessThan(height);
  });
});
