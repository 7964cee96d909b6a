import { sayMinutes } from './minutes';

describe('sayMinutes', () => {
  it.each([
    [{ hands: 3, waiting: 0 }, 'about 5 min of work'],
    [{ hands: 22, waiting: 5 }, 'about 20 min of work'],
    [{ hands: 57, waiting: 60 }, 'about 55 min of work, 60 min of waiting'],
    [{ hands: 120, waiting: 95 }, 'about 2 h of work, 1 h 35 min of waiting'],
  ])('%j', (minutes, said) => {
    expect(sayMinutes(minutes)).toBe(said);
  });
});
