/* Asks a server as a house full of screens would, and more: for the benchmark. */
import { randomUUID } from 'node:crypto';

/** The value that so large a share of the values is not above. */
export const quantile = (values, share) =>
  values.toSorted((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

/** Milliseconds until an answer has come whole. */
export async function timed(url, init) {
  const start = performance.now();
  const answer = await fetch(url, init);
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${url} answers ${answer.status}.`);
  return performance.now() - start;
}

/**
 * 50 readers of the bench, 5 who count loads, one who prints records, one who reads the least there is: each asks
 * again as soon as it was answered. Beside them, screens that listen to changes.
 * @param prints whether records are printed meanwhile
 * @returns the times of each, ms, and how many went wrong
 */
export async function underLoad(address, seconds, { streams = 0, prints = true } = {}) {
  const api = `${address}api/v1/`;
  const machines = await (await fetch(`${api}machines`)).json();
  const end = Date.now() + 1000 * seconds;
  const times = { bench: [], write: [], small: [], print: [] };
  let errors = 0;
  const again = async (list, ask) => {
    while (Date.now() < end) {
      await ask().then(
        (time) => list.push(time),
        () => errors++,
      );
    }
  };
  const ended = new AbortController();
  const listening = Array.from({ length: streams }, async () => {
    const { body } = await fetch(`${api}changes`, { signal: ended.signal });
    for await (const _piece of body);
  });
  const left = Promise.allSettled(listening);
  const tap = (machineId) =>
    timed(`${api}entries`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', 'Idempotency-Key': randomUUID() },
      body: JSON.stringify({ kind: 'load', machineId, at: new Date().toISOString(), count: 1 }),
    });
  await Promise.all([
    ...Array.from({ length: 50 }, () => again(times.bench, () => timed(`${api}bench`))),
    ...Array.from({ length: 5 }, (_, i) =>
      again(times.write, () => tap(machines[i % machines.length].id)),
    ),
    again(times.small, () => timed(`${api}household`)),
    ...(prints
      ? [again(times.print, () => timed(`${api}machines/${machines[0].id}/record.pdf`))]
      : []),
  ]);
  ended.abort();
  await left;
  return { ...times, errors };
}
