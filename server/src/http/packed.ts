import type { Request, Response } from 'express';
import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import type { Answer } from './answer.js';

/** Fast, and nearly as small as it gets. */
const LEVEL = 4;
/** What is smaller than this is sent as it is, characters. */
const SMALL = 1024;

const pack = promisify(gzip);
const packed = new WeakMap<Answer, Promise<Buffer>>();

/** Sends an answer that was written out before: packed once, however many ask for it. */
export async function sendWritten(
  request: Request,
  response: Response,
  answer: Answer,
  written: string,
): Promise<void> {
  response.type('json');
  response.vary('Accept-Encoding');
  if (written.length < SMALL || request.acceptsEncodings('gzip', 'identity') !== 'gzip') {
    return void response.send(written);
  }
  let bytes = packed.get(answer);
  if (!bytes) {
    bytes = pack(written, { level: LEVEL });
    packed.set(answer, bytes);
  }
  const body = await bytes;
  response.set('Content-Encoding', 'gzip').send(body);
}
