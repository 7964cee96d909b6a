import express from 'express';
import { connect, type AddressInfo, type Socket } from 'node:net';
import { performance } from 'node:perf_hooks';
import { afterEach, expect, it } from 'vitest';
import { writesFirst } from './lanes.js';
import { LoopWatch, type Hold } from './loop-watch.js';

const busy = (ms: number): void => {
  const until = performance.now() + ms;
  while (performance.now() < until);
};
let close: () => void = () => undefined;
afterEach(() => close());

it('what holds the loop too long is told by name', async () => {
  const told: Hold[] = [];
  const watch = new LoopWatch((hold) => told.push(hold));
  watch.start();
  close = () => watch.stop();
  const rest = () => new Promise((done) => setTimeout(done, 45));
  await rest();
  const before = told.length;
  watch.during('a long thing', () => busy(140));
  await rest();
  const [hold] = told.slice(before);
  expect(hold!.by[0]).toMatch(/^a long thing \d{3,} ms$/);
  expect(hold!.ms).toBeGreaterThan(70);
  expect(watch.longest).toBeGreaterThan(70);
});

it('a write does not wait behind a row of reads', async () => {
  const app = express();
  const order: string[] = [];
  /** A connection that is there already: what is written to it comes in at the next turn. */
  const there: { writer?: Socket } = {};
  app.use(writesFirst());
  app.get('/', (_request, response) => {
    busy(10);
    order.push('read');
    if (order.length === 5) {
      there.writer!.write('POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 0\r\n\r\n');
    }
    response.end();
  });
  app.post('/', (_request, response) => {
    order.push('write');
    response.end();
  });
  const server = app.listen(0, '127.0.0.1');
  close = () => {
    there.writer?.destroy();
    server.closeAllConnections();
    server.close();
  };
  await new Promise((done) => server.once('listening', done));
  const { port } = server.address() as AddressInfo;
  const writer = connect(port, '127.0.0.1');
  there.writer = writer;
  await new Promise((done) => writer.once('connect', done));
  await Promise.all(
    Array.from({ length: 60 }, () => fetch(`http://127.0.0.1:${port}/`).then((one) => one.text())),
  );
  expect(order.filter((one) => one === 'read')).toHaveLength(60);
  // Sixty reads wait; two or three of them are what a write may meet.
  expect(order.indexOf('write')).toBeLessThan(10);
});
