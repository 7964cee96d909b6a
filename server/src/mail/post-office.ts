import { SMTPServer } from 'smtp-server';
import type { AddressInfo } from 'node:net';
import type { MailServerDraft, MailState } from '@needlecase/core/model/mail';

type Letter = NonNullable<MailState['letters']>[number];

const MOST_LETTERS = 30;
const MOST_BYTES = 2_000_000;

/** Stands in for a real post office: it takes every letter, hands none on, and shows what came. */
export class PostOffice {
  readonly #server: SMTPServer;
  readonly letters: Letter[] = [];

  private constructor() {
    this.#server = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      size: MOST_BYTES,
      onData: (stream, _session, done) => {
        const pieces: Buffer[] = [];
        stream.on('data', (piece: Buffer) => pieces.push(piece));
        stream.on('end', () => {
          this.letters.unshift(read(Buffer.concat(pieces).toString('utf8')));
          this.letters.length = Math.min(this.letters.length, MOST_LETTERS);
          done();
        });
      },
    });
  }

  /** Opens it on this computer alone. @returns it, and how it is reached */
  static async open(): Promise<{ office: PostOffice; server: MailServerDraft }> {
    const office = new PostOffice();
    const listener = office.#server.listen(0, '127.0.0.1');
    await new Promise((done) => listener.once('listening', done));
    const { port } = listener.address() as AddressInfo;
    const server = { host: '127.0.0.1', port, secure: false, from: 'needlecase@house.invalid' };
    return { office, server };
  }

  close(): void {
    this.#server.close();
  }
}

/** A letter as it came, as far as it is shown: its plain words. */
function read(raw: string): Letter {
  const [head = ''] = raw.split(/\r?\n\r?\n/);
  const field = (name: string) =>
    decoded(new RegExp(`^${name}: ((?:.|\\r?\\n[ \\t])*)`, 'im').exec(head)?.[1] ?? '');
  const part = /Content-Type: text\/plain[^]*?\r?\n\r?\n([^]*?)(?:\r?\n--|$)/i.exec(raw)?.[1] ?? '';
  const encoding = /Content-Type: text\/plain[^]*?Content-Transfer-Encoding: (\S+)/i.exec(raw)?.[1];
  return {
    to: field('To'),
    subject: field('Subject'),
    text: body(part, encoding?.toLowerCase()).slice(0, 4000),
    at: new Date().toISOString(),
  };
}

function body(text: string, encoding: string | undefined): string {
  if (encoding === 'base64') return Buffer.from(text, 'base64').toString('utf8');
  return encoding === 'quoted-printable' ? quoted(text.replaceAll(/=\r?\n/g, '')) : text;
}

const quoted = (text: string): string =>
  Buffer.from(
    text
      .replaceAll(/[^\x20-\x7e\r\n\t]/g, '?')
      .replaceAll(/=([0-9A-F]{2})/gi, (_, hex: string) =>
        String.fromCharCode(Number.parseInt(hex, 16)),
      ),
    'latin1',
  ).toString('utf8');

/** Words of a heading that are not ASCII (RFC 2047). */
const decoded = (text: string): string =>
  text
    .replaceAll(/\r?\n[ \t]/g, ' ')
    .replaceAll(/\?=\s+=\?/g, '?==?')
    .replaceAll(/=\?utf-8\?([QB])\?([^?]*)\?=/gi, (_, how: string, what: string) =>
      how.toUpperCase() === 'B'
        ? Buffer.from(what, 'base64').toString('utf8')
        : quoted(what.replaceAll('_', ' ')),
    );
