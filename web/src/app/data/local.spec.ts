import { readLocal, removeLocal, localNames, writeLocal } from './local';

describe('what the device keeps', () => {
  beforeEach(() => localStorage.clear());
  afterEach(() => {
    vi.restoreAllMocks();
    localStorage.clear();
  });

  it('comes back as it was, by its name', () => {
    writeLocal('run.1', { at: 3, tasks: ['a'] });
    writeLocal('run.2', null);
    writeLocal('start', 'x');
    expect(readLocal('run.1')).toEqual({ at: 3, tasks: ['a'] });
    expect(readLocal('run.2')).toBeUndefined();
    expect(localNames('run.').sort()).toEqual(['1', '2']);
    removeLocal('run.1');
    expect(readLocal('run.1')).toBeUndefined();
    expect(localNames('run.')).toEqual(['2']);
  });

  it('is nothing where it cannot be read', () => {
    localStorage.setItem('needlecase.start', '{"half');
    expect(readLocal('start')).toBeUndefined();
  });

  it('leaves nothing old behind where there is no room for the new', () => {
    writeLocal('run.1', 'old');
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    writeLocal('run.1', 'new');
    expect(readLocal('run.1')).toBeUndefined();
  });

  it('does without a browser that keeps anything', () => {
    for (const way of ['getItem', 'setItem', 'removeItem'] as const) {
      vi.spyOn(Storage.prototype, way).mockImplementation(() => {
        throw new DOMException('no', 'SecurityError');
      });
    }
    expect(() => writeLocal('a', 1)).not.toThrow();
    expect(() => removeLocal('a')).not.toThrow();
    expect(readLocal('a')).toBeUndefined();
  });
});
