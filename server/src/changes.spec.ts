import type { AddressInfo } from 'node:net';
import { afterEach, expect, it } from 'vitest';
import { readyApp } from './testing/household.js';
import { ago } from './testing/household.js';

let close: () => void = () => undefined;
afterEach(() => close());

async function listening() {
  const app = await readyApp();
  const server = app.express.listen(0, '127.0.0.1');
  close = () => {
    app.changes.close();
    server.close();
  };
  await new Promise((done) => server.once('listening', done));
  return {
    app,
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/api/v1`,
  };
}

it('tells open screens of what was stored, and of nothing that was refused', async () => {
  const { app, address } = await listening();
  const stream = await fetch(`${address}/changes?ngsw-bypass`);
  // Packed, it would wait until there is enough of it.
  expect(stream.headers.get('Content-Encoding')).toBeNull();
  const readAt = (await fetch(`${address}/bench`)).headers.get('Needlecase-Revision');
  const reader = stream.body!.pipeThrough(new TextDecoderStream()).getReader();
  const post = (body: object) =>
    fetch(`${address}/entries`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  await post({ kind: 'load', machineId: app.washer.id, at: '2199-01-01T00:00:00Z' });
  await post({ kind: 'load', machineId: app.washer.id, at: ago(0) });
  let text = '';
  while (!text.includes('data: {')) text += (await reader.read()).value;
  const told = [...text.matchAll(/^data: (\{.*)/gm)].map(([, data]) => JSON.parse(data!));
  expect(/event: revision\ndata: (.+)/.exec(text)![1]).toBe(readAt);
  const clock = Number(/event: clock\ndata: (\d+)/.exec(text)![1]);
  expect(Math.abs(clock - Date.now())).toBeLessThan(60_000);
  expect(told).toEqual([{ topic: 'entries', id: app.washer.id }]);
  const after = (await fetch(`${address}/bench`)).headers.get('Needlecase-Revision');
  expect(after).not.toBe(readAt);
});

it('writes nothing more to streams that it ended, for one who is shut out or at its stop', async () => {
  const { app, address } = await listening();
  const streams = await Promise.all(
    [1, 2, 3].map(() => fetch(`${address}/changes`).then(({ body }) => body!)),
  );
  const change = { topic: 'entries', id: app.washer.id } as const;
  app.changes.end('here');
  // At once: what was ended has not come to its end yet.
  app.changes.tell(change);
  const said = await Promise.all(streams.map((stream) => new Response(stream).text()));
  expect(said.join('')).not.toContain('data: {');

  const another = await fetch(`${address}/changes`);
  app.changes.close();
  app.changes.tell(change);
  expect(await another.text()).not.toContain('data: {');
});
