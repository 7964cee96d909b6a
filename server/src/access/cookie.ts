import type { Request, Response } from 'express';
import { lifeOf } from './devices.js';
import { isHere } from './here.js';

/*
 * A device's secret lies in a cookie that no script reads and no other site sends. Over https a browser takes it
 * from this very host alone (`__Host-`); over plain http it cannot be held to that.
 */
const STRONG = '__Host-needlecase';
const WEAK = 'needlecase-weak';

/** The secret that a device sends; nothing where another host of the zone has put one beside it. */
export function secretOf(request: Request): string | undefined {
  const name = request.secure ? STRONG : WEAK;
  const all = (request.get('Cookie') ?? '')
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part.startsWith(`${name}=`))
    .map((part) => part.slice(name.length + 1));
  const [secret, another] = all;
  return another === undefined && secret ? secret : undefined;
}

const options = (secure: boolean) =>
  ({ httpOnly: true, sameSite: 'strict', secure, path: '/' }) as const;

export function keepSecret(request: Request, response: Response, secret: string): void {
  const { secure } = request;
  response.cookie(secure ? STRONG : WEAK, secret, {
    ...options(secure),
    maxAge: lifeOf(!secure && !isHere(request)),
  });
}

export function forgetSecret(request: Request, response: Response): void {
  response.clearCookie(request.secure ? STRONG : WEAK, options(request.secure));
}
