import { randomLcg } from 'd3-random';
import { createServer, request, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';

/** What a network does to a request, and how often. */
const FATES = {
  passes: 0.5,
  /** It never arrives. */
  dropped: 0.07,
  /** It arrives, and its answer does not. */
  unanswered: 0.09,
  late: 0.08,
  /** It arrives twice. */
  twice: 0.07,
  /** A page that wants one to sign in. */
  page: 0.06,
  unauthorized: 0.04,
  'not found': 0.04,
  'bad gateway': 0.03,
  /** Half of the answer. */
  cut: 0.02,
} as const;
type Fate = keyof typeof FATES;

/** Something between browser and server that loses, delays, doubles and answers for it, by a seed. */
export class ChaosProxy {
  readonly #chance: () => number;
  readonly #server = createServer((asked, answer) => void this.#meet(asked, answer));
  /** How often each happened. */
  readonly fates: Partial<Record<Fate, number>> = {};
  calm = false;
  address = '';

  constructor(
    private readonly target: string,
    seed: number,
  ) {
    this.#chance = randomLcg(seed);
  }

  async start(): Promise<void> {
    await new Promise<void>((done) => this.#server.listen(0, '127.0.0.1', done));
    this.address = `http://127.0.0.1:${(this.#server.address() as AddressInfo).port}/`;
  }

  stop(): void {
    this.#server.closeAllConnections();
    this.#server.close();
  }

  async #meet(asked: IncomingMessage, answer: ServerResponse): Promise<void> {
    const pieces: Buffer[] = [];
    for await (const piece of asked as AsyncIterable<Buffer>) pieces.push(piece);
    const body = Buffer.concat(pieces);
    const fate = this.#fateOf(asked);
    this.fates[fate] = (this.fates[fate] ?? 0) + 1;
    switch (fate) {
      case 'dropped':
        return void asked.socket.destroy();
      case 'late':
        await new Promise((done) => setTimeout(done, 100 + 900 * this.#chance()));
        return this.#pass(asked, body, answer);
      case 'unanswered':
        await this.#ask(asked, body);
        return void asked.socket.destroy();
      case 'twice':
        await this.#ask(asked, body);
        return this.#pass(asked, body, answer);
      case 'page':
        answer.writeHead(200, { 'Content-Type': 'text/html' });
        return void answer.end('<!doctype html><h1>Sign in</h1>');
      case 'unauthorized':
        return void answer.writeHead(401).end('Who are you?');
      case 'not found':
        return void answer.writeHead(404, { 'Content-Type': 'text/html' }).end('<p>Nothing</p>');
      case 'bad gateway':
        return void answer.writeHead(502).end();
      case 'cut': {
        const { status, headers, content } = await this.#ask(asked, body);
        answer.writeHead(status, headers);
        answer.write(content.subarray(0, content.length >> 1));
        return void setTimeout(() => asked.socket.destroy(), 20);
      }
      default:
        return this.#pass(asked, body, answer);
    }
  }

  /** The application itself comes through; what is read fares better than what is sent. */
  #fateOf({ method, url = '' }: IncomingMessage): Fate {
    if (this.calm || !url.startsWith('/api/')) return 'passes';
    if (method === 'GET' && (url.startsWith('/api/v1/changes') || this.#chance() < 0.8)) {
      return 'passes';
    }
    let left = this.#chance();
    for (const [fate, share] of Object.entries(FATES) as [Fate, number][]) {
      if (left < share) return fate;
      left -= share;
    }
    return 'passes';
  }

  #pass(asked: IncomingMessage, body: Buffer, answer: ServerResponse): void {
    const onward = this.#onward(asked, (back) => {
      answer.writeHead(back.statusCode!, back.headers);
      back.pipe(answer);
      back.on('error', () => answer.destroy());
    });
    onward.on('error', () => answer.destroy());
    answer.on('close', () => onward.destroy());
    onward.end(body);
  }

  /** What the server answers; nobody may hear of it. */
  #ask(
    asked: IncomingMessage,
    body: Buffer,
  ): Promise<{ status: number; headers: IncomingMessage['headers']; content: Buffer }> {
    return new Promise((done) => {
      const onward = this.#onward(asked, (back) => {
        const pieces: Buffer[] = [];
        back.on('data', (piece: Buffer) => pieces.push(piece));
        back.on('end', () =>
          done({ status: back.statusCode!, headers: back.headers, content: Buffer.concat(pieces) }),
        );
      });
      onward.on('error', () => done({ status: 502, headers: {}, content: Buffer.alloc(0) }));
      onward.end(body);
    });
  }

  #onward({ method, url, headers }: IncomingMessage, then: (back: IncomingMessage) => void) {
    return request(new URL(url!, this.target), { method: method!, headers }, then);
  }
}
