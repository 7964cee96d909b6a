import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';

export const MAIN = fileURLToPath(new URL('../../dist/main.js', import.meta.url));

/** The built server as a process of its own, which can be ended in every way. */
export class ServerProcess {
  #child: ChildProcess | undefined;

  constructor(readonly file: string) {}

  /** @returns its address, with a slash at the end */
  start(env: NodeJS.ProcessEnv = {}): Promise<string> {
    const child = spawn(process.execPath, [MAIN], {
      env: { ...process.env, NEEDLECASE_DB: this.file, PORT: '0', ...env },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#child = child;
    return new Promise((found, failed) => {
      child.once('exit', () => failed(new Error('The server did not start.')));
      child.stdout.on('data', (text: Buffer) => {
        const match = /http:\/\/\S+/.exec(String(text));
        if (match) found(match[0]);
      });
    });
  }

  get pid(): number {
    return this.#child!.pid!;
  }

  /** How it ended, where it did by itself. */
  get code(): number | null {
    return this.#child!.exitCode;
  }

  signal(signal: NodeJS.Signals): void {
    this.#child?.kill(signal);
  }

  /** Ends it, and waits until it has. */
  async end(signal: NodeJS.Signals): Promise<void> {
    const child = this.#child;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const gone = new Promise((done) => child.once('exit', done));
    child.kill(signal);
    await gone;
  }
}

/** Sends JSON to a server's API. */
export const send = (
  address: string,
  path: string,
  body: object,
  key?: string,
): Promise<Response> =>
  fetch(`${address}api/v1/${path}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', ...(key ? { 'Idempotency-Key': key } : {}) },
    body: JSON.stringify(body),
  });
