import {
  HttpErrorResponse,
  HttpResponse,
  type HttpEvent,
  type HttpInterceptorFn,
} from '@angular/common/http';
import { many, type VisitProgress } from '@needlecase/core';
import { firstValueFrom, tap, type Observable } from 'rxjs';
import { readLocal, writeLocal } from './local';
import type { ToastsService } from './toasts.service';

/*
 * What time it is. A device's clock can be off; the server's is measured with each answer to something that
 * was sent (answers to what is read may come from the worker's store, long after).
 */

/** Milliseconds that the server's clock is ahead of this device's; undefined until it was heard. */
let ahead: number | undefined;

/** A clock off by less is right: answers tell whole seconds, and take their time. */
const SLIGHT_MS = 2500;
const SAY_FROM_MS = 60_000;
const SAID = 'clock-said';

/** Whether the clock was held against the server's since the page was opened. */
export const isClockKnown = (): boolean => ahead !== undefined;

/** UTC milliseconds by the server's clock, as far as it is known. */
export const timeNow = (): number => Date.now() + (ahead ?? 0);

/** UTC instant, RFC 3339. */
export const instantNow = (): string => new Date(timeNow()).toISOString();

/** When something was noted. */
export interface Stamp {
  at: string;
  /** What the device's clock said, where that is off or was not held against the server's yet. */
  deviceAt?: string;
}

export function stamp(): Stamp {
  const deviceAt = new Date().toISOString();
  return ahead === 0 ? { at: deviceAt } : { at: instantNow(), deviceAt };
}

/** Something that was stamped, by what is known of the clock now; the same where nothing changes. */
export function timed<T extends { at: string; deviceAt?: string }>(one: T): T {
  const { deviceAt, ...rest } = one;
  if (deviceAt === undefined || ahead === undefined) return one;
  if (ahead === 0) return { ...rest, at: deviceAt } as unknown as T;
  const at = shifted(deviceAt);
  return at === one.at ? one : { ...one, at };
}

/** An instant of this device's clock by the server's. */
export const shifted = (at: string): string =>
  new Date(Date.parse(at) + (ahead ?? 0)).toISOString();

/** The progress of a visit with nothing in it later than now; the same where nothing is. */
export function notAhead(progress: VisitProgress): VisitProgress {
  const now = timeNow();
  let changed = false;
  const by = <T>(one: T): T => {
    if (typeof one !== 'string' || !(Date.parse(one) > now)) return one;
    changed = true;
    return new Date(now).toISOString() as T;
  };
  const each = <T>(all: Record<string, T>, change: (one: T) => T): Record<string, T> =>
    Object.fromEntries(Object.entries(all).map(([key, one]) => [key, change(one)]));
  const { ticked, tasks, timers, brought, rinsed } = progress;
  const right: VisitProgress = {
    ...progress,
    ticked: each(ticked, by),
    tasks: each(tasks, (one) => (one.doneAt ? { ...one, doneAt: by(one.doneAt) } : one)),
    timers: each(timers, (one) => ({ ...one, startedAt: by(one.startedAt) })),
    ...(brought ? { brought: each(brought, (one) => ({ ...one, at: by(one.at) })) } : {}),
    ...(rinsed ? { rinsed: each(rinsed, (one) => ({ ...one, at: by(one.at) })) } : {}),
  };
  return changed ? right : progress;
}

/**
 * Holds the device's clock against an answer of the server.
 * @param date its Date header
 * @param sent when the question left, and the answer came, by the device's clock, milliseconds
 */
export function hearClock(date: string | null, sent: number, received: number): void {
  const server = Date.parse(date ?? '');
  if (!Number.isFinite(server)) return;
  // The header tells whole seconds: half of one is on its way on the average.
  hearAhead(server + 500 - (sent + received) / 2);
}

/**
 * Asks the server for its time, past the worker.
 * @param ask reads an address of the API
 * @throws what asking does
 */
export async function askClock(
  ask: (path: string, params: Record<string, string>) => Observable<{ at: string }>,
): Promise<void> {
  const sent = Date.now();
  const { at } = await firstValueFrom(ask('health', { 'ngsw-bypass': '' }));
  const server = Date.parse(at);
  if (Number.isFinite(server)) hearAhead(server - (sent + Date.now()) / 2);
}

/** What another tab, or the stream of changes, knows of the server's clock; milliseconds ahead. */
export function hearAhead(measured: number): void {
  ahead = Math.abs(measured) < SLIGHT_MS ? 0 : Math.round(measured);
  heard?.();
}

/** Milliseconds that the server's clock is ahead; undefined until it was heard. */
export const clockAhead = (): number | undefined => ahead;

/** Told when the clock was heard; set by whoever says so to people. */
let heard: (() => void) | undefined;
export function onClockHeard(tell: () => void): void {
  heard = tell;
}

/** As if the page were opened anew. */
export function forgetClock(): void {
  ahead = undefined;
}

/** Says once on a device that its clock is off, and again when it is off by something else. */
export function sayClock(toasts: ToastsService): void {
  const off = ahead ?? 0;
  if (Math.abs(off) < SAY_FROM_MS) return;
  const minutes = Math.round(off / SAY_FROM_MS);
  if (readLocal<number>(SAID) === minutes) return;
  writeLocal(SAID, minutes);
  toasts.show(
    `The clock of this device is ${sayOff(Math.abs(minutes))} ${off < 0 ? 'fast' : 'slow'}. What you note is kept with the right time.`,
  );
}

function sayOff(minutes: number): string {
  if (minutes < 120) return many(minutes, 'minute');
  const hours = Math.round(minutes / 60);
  return hours < 48 ? many(hours, 'hour') : many(Math.round(hours / 24), 'day');
}

/** Hears the server's clock in its answers to what is sent. */
export const hearsClock: HttpInterceptorFn = (request, next) => {
  if (request.method === 'GET') return next(request);
  const sent = Date.now();
  const hear = (answer: unknown) => {
    if (!(answer instanceof HttpResponse || answer instanceof HttpErrorResponse)) return;
    // Not what a network in between answers.
    if (!answer.headers.has('Needlecase-Household')) return;
    hearClock(answer.headers.get('Date'), sent, Date.now());
  };
  return next(request).pipe(tap<HttpEvent<unknown>>({ next: hear, error: hear }));
};
