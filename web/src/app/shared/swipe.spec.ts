import { swipeOf } from './swipe';

describe('a swipe', () => {
  it.each<[string, number, number, string | undefined]>([
    ['to the left', -120, 10, 'left'],
    ['to the right', 90, -30, 'right'],
    ['too short', -60, 0, undefined],
    ['down the page', -80, 200, undefined],
    ['slanting', 100, 60, undefined],
  ])('%s', (_what, across, down, wanted) => {
    expect(swipeOf(across, down)).toBe(wanted);
  });
});
