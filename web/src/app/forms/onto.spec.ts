import { onto, withoutVersion } from './onto';

interface Jar {
  name: string;
  place?: string | undefined;
  price?: number;
  lid?: boolean;
}
const FORM: (keyof Jar)[] = ['name', 'place'];

describe('a form onto what is stored', () => {
  const stored: Jar = { name: 'Honey', place: 'Shelf', price: 4, lid: false };

  it('keeps every field that the form does not know, false and zero too', () => {
    expect(onto(stored, FORM, { name: 'Jam', place: 'Cellar' })).toEqual({
      name: 'Jam',
      place: 'Cellar',
      price: 4,
      lid: false,
    });
    expect(onto<Jar>({ name: 'Honey', price: 0 }, FORM, { name: 'Jam' }).price).toBe(0);
  });

  it('empties a field that it knows and leaves out', () => {
    expect('place' in onto(stored, FORM, { name: 'Jam' })).toBe(false);
  });

  it('is what the form says where nothing is stored yet', () => {
    expect(onto<Jar>(undefined, FORM, { name: 'Jam' })).toEqual({ name: 'Jam' });
  });

  it('leaves what is stored as it was', () => {
    const before = structuredClone(stored);
    onto(stored, FORM, { name: 'Jam' });
    expect(stored).toEqual(before);
  });
});

describe('withoutVersion', () => {
  it('takes away what the server adds, and nothing else', () => {
    expect(withoutVersion({ id: 'j1', version: 3, name: 'Honey', price: 4 })).toEqual({
      name: 'Honey',
      price: 4,
    });
  });
});
