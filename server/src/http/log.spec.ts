import { pino } from 'pino';
import { describe, expect, it } from 'vitest';
import { emptyApp } from '../testing/household.js';
import { withoutSecrets } from './log.js';

interface Layer {
  route?: { path: string };
}

/** Every address that a server answers, as it is written where it is mounted. */
const addresses = (): string[] => {
  const { express, store } = emptyApp({ webRoot: 'none' });
  const { stack } = (express as unknown as { router: { stack: Layer[] } }).router;
  store.close();
  return stack.flatMap(({ route }) => (route ? [route.path].flat() : []));
};

describe('an address in the log', () => {
  const secret = 'aVeryLongSecretThatLetsSomebodyIn';
  /** A part of a path that is anything but the id of a thing lets somebody in. */
  const secretPaths = addresses()
    .filter((path) => /:(?!id\b)\w+/.test(path))
    .map((path) => path.replaceAll(/:(?!id\b)\w+/g, secret).replaceAll(':id', 'x'));

  it('has no secret of any route that has one in its path, however it is spelled', () => {
    expect(secretPaths.length).toBeGreaterThanOrEqual(5);
    for (const path of secretPaths) {
      for (const asked of [
        path,
        path.replace(/^\/[a-z]+/, (one) => one.toUpperCase()),
        `${path}?a=1`,
      ]) {
        expect(withoutSecrets(asked)).not.toContain(secret);
      }
    }
  });

  it('nor in the log itself', async () => {
    const lines: string[] = [];
    const log = pino({ level: 'trace' }, { write: (line: string) => void lines.push(line) });
    const { api, store } = emptyApp({ log });
    for (const path of secretPaths) {
      await api.get(path);
      await api.post(path).send({});
    }
    await api.get(`/pair?code=${secret}`);
    await api.get(`/api/v1/bench?token=${secret}&x=1`);
    store.close();
    expect(lines.length).toBeGreaterThanOrEqual(2 * secretPaths.length);
    expect(lines.join('')).not.toContain(secret);
  });
});
