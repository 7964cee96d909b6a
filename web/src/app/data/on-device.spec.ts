import { fromDevice, offDevice, onDevice, ontoDevice } from './on-device';

describe('what the device keeps', () => {
  beforeEach(() => localStorage.clear());
  afterEach(() => {
    vi.restoreAllMocks();
    localStorage.clear();
  });

  it('comes back as it was, by its name', () => {
    ontoDevice('run.1', { at: 3, tasks: ['a'] });
    ontoDevice('run.2', null);
    ontoDevice('start', 'x');
    expect(fromDevice('run.1')).toEqual({ at: 3, tasks: ['a'] });
    expect(fromDevice('run.2')).toBeUndefined();
    expect(onDevice('run.').sort()).toEqual(['1', '2']);
    offDevice('run.1');
    expect(fromDevice('run.1')).toBeUndefined();
    expect(onDevice('run.')).toEqual(['2']);
  });

  it('is nothing where it cannot be read', () => {
    localStorage.setItem('needlecase.start', '{"half');
    expect(fromDevice('start')).toBeUndefined();
  });

  it('leaves nothing old behind where there is no room for the new', () => {
    ontoDevice('run.1', 'old');
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    ontoDevice('run.1', 'new');
    expect(fromDevice('run.1')).toBeUndefined();
  });

  it('does without a browser that keeps anything', () => {
    for (const way of ['getItem', 'setItem', 'removeItem'] as const) {
      vi.spyOn(Storage.prototype, way).mockImplementation(() => {
        throw new DOMException('no', 'SecurityError');
      });
    }
    expect(() => ontoDevice('a', 1)).not.toThrow();
    expect(() => offDevice('a')).not.toThrow();
    expect(fromDevice('a')).toBeUndefined();
  });
});
