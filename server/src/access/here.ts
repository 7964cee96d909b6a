import type { Request } from 'express';
import { hostOf, isLoopbackName } from './names.js';

/** What is told of a request that another computer handed on. */
const HANDED_ON = [
  'forwarded',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-proto',
  'x-real-ip',
  'via',
];

/** Whether a request comes from a program on this very computer, asked by the computer's own name. */
export function isHere(request: Request): boolean {
  const from = request.socket.remoteAddress ?? '';
  return (
    /^(::ffff:)?127\.|^::1$/.test(from) &&
    isLoopbackName(hostOf(request.get('Host'))) &&
    HANDED_ON.every((name) => request.get(name) === undefined)
  );
}
