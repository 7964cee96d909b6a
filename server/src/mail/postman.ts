import { createHmac, timingSafeEqual } from 'node:crypto';
import { dayOf, weekdayOf, type Day } from '@needlecase/core';
import type { MailServerDraft } from '@needlecase/core/model/mail';
import type { Digest } from '@needlecase/core/print/digest';
import { mustBeCallable, NotCalled } from '../http/outgoing.js';
import type { RecipientRow } from '../store/mail.js';
import type { Store } from '../store/store.js';

/** What there is to tell today. */
export interface News {
  /** Something that keeps people safe is due: it is told on any day. */
  urgent: boolean;
  /** The letter, for a link by which one says that no more are wanted. */
  letter: (stop: string) => Digest;
  /** The next visit as a calendar file. */
  next?: string;
  /** Where the program is opened. */
  address: string;
}

/** Letters of the week go out from this hour on, urgent ones from that. */
const WEEKLY_HOUR = 17;
const URGENT_HOUR = 8;
/** Tried again after this, twice as long each time, and no longer than that. ms */
const FIRST_WAIT_MS = 5 * 60_000;
const LONGEST_WAIT_MS = 6 * 3_600_000;
const PATIENCE_MS = 20_000;

/** How a letter went. */
type Outcome = 'sent' | { refused: string } | { unsure: string };

/**
 * Sends the letters of the year ahead: once a week to each, and once a day where something that keeps people safe is
 * due. It is noted as sent before it is, so that no crash sends it twice; what surely did not leave is tried again.
 */
export class Postman {
  #busy = false;

  constructor(
    private readonly store: Store,
    private readonly news: () => Promise<News>,
    /** From the environment; it comes before what is kept. */
    private readonly fixed: MailServerDraft | undefined,
    private readonly failed: (error: unknown) => void = () => undefined,
    /** A mail server that does not answer by then is away, ms. */
    private readonly patience = PATIENCE_MS,
  ) {}

  get isFixed(): boolean {
    return this.fixed !== undefined;
  }

  get server(): MailServerDraft | undefined {
    return this.fixed ?? this.store.mail.server;
  }

  /** Looks who is to be told something now. @param now instant, milliseconds @returns letters that left */
  async round(now = Date.now()): Promise<number> {
    const { server } = this;
    const household = this.store.household.get();
    if (this.#busy || !server || !household) return 0;
    this.#busy = true;
    let sent = 0;
    try {
      const { zone } = household;
      const today = dayOf(now, zone);
      const hour = hourIn(now, zone);
      const waiting = this.store.mail
        .list()
        .filter(({ nextTryAt }) => nextTryAt === null || nextTryAt <= now)
        .filter((row) => row.sentOn !== today);
      if (waiting.length === 0 || hour < URGENT_HOUR) return 0;
      const news = await this.news();
      for (const row of waiting) {
        if (
          isDue(row, today, hour, news.urgent) &&
          (await this.send(row, news, server, today, now))
        ) {
          sent++;
        }
      }
    } catch (error) {
      this.failed(error);
    } finally {
      this.#busy = false;
    }
    return sent;
  }

  /** Sends one letter now, whatever day it is. */
  async sendNow(id: string, now = Date.now()): Promise<void> {
    const { server } = this;
    const household = this.store.household.get();
    const row = this.store.mail.get(id);
    if (!server || !household || !row) return;
    await this.send(row, await this.news(), server, dayOf(now, household.zone), now);
  }

  private async send(
    row: RecipientRow,
    news: News,
    server: MailServerDraft,
    today: Day,
    now: number,
  ): Promise<boolean> {
    const { store } = this;
    // Noted first: whatever happens from here on, it is not sent twice.
    store.write(() => store.mail.note(row.id, { sentOn: today }));
    const stop = `${news.address}/letters/stop/${this.stopper(row.id)}`;
    const outcome = await deliver(server, row, news, {
      stop,
      name: `${today}.${row.id}`,
      patience: this.patience,
    });
    store.write(() => {
      if (outcome === 'sent') {
        store.mail.note(row.id, { tries: 0, nextTryAt: null, problem: null });
      } else if ('unsure' in outcome) {
        store.mail.note(row.id, { tries: 0, nextTryAt: null, problem: outcome.unsure });
      } else {
        const wait = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** row.tries);
        store.mail.note(row.id, {
          sentOn: row.sentOn,
          tries: row.tries + 1,
          nextTryAt: now + wait,
          problem: outcome.refused,
        });
      }
      store.changed({ topic: 'household' });
    });
    return outcome === 'sent';
  }

  /** What stands in a link by which somebody says that no more letters are wanted. */
  stopper(id: string): string {
    return `${id}.${this.#sign(id)}`;
  }

  /** Whose link it is; nothing where it was not made here. */
  stoppedBy(stopper: string): RecipientRow | undefined {
    const [id = '', signed = ''] = stopper.split('.');
    const [right, given] = [Buffer.from(this.#sign(id)), Buffer.from(signed)];
    const isRight = right.length === given.length && timingSafeEqual(right, given);
    return isRight ? this.store.mail.get(id) : undefined;
  }

  #sign(id: string): string {
    return createHmac('sha256', this.store.mail.key()).update(id).digest('base64url');
  }
}

function hourIn(now: number, zone: string): number {
  const hour = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hour: '2-digit',
    hourCycle: 'h23',
  });
  return Number(hour.format(now));
}

/** On the day of the week that was asked for, from the evening on; and on any day where it cannot wait. */
const isDue = ({ weekday }: RecipientRow, today: Day, hour: number, urgent: boolean): boolean =>
  urgent || (weekdayOf(today) === weekday && hour >= WEEKLY_HOUR);

async function deliver(
  { host, port, secure, user, password, from }: MailServerDraft,
  { address }: RecipientRow,
  { letter, next }: News,
  { stop, name, patience }: { stop: string; name: string; patience: number },
): Promise<Outcome> {
  try {
    await mustBeCallable(host, 'home');
  } catch (error) {
    if (error instanceof NotCalled) return { refused: 'No mail server can be at this address.' };
  }
  const { createTransport } = await import('nodemailer');
  // From the word DATA on, what breaks off may have arrived: only the talk itself tells.
  let handed = false;
  const hears = (entry: unknown, said: unknown) => {
    if ((entry as { tnx?: string }).tnx === 'client' && String(said).startsWith('DATA'))
      handed = true;
  };
  const deaf = () => undefined;
  const transport = createTransport({
    logger: {
      ...{ level: deaf, trace: deaf, info: deaf, warn: deaf, error: deaf, fatal: deaf },
      debug: hears,
    },
    transactionLog: true,
    ...{ host, port, secure },
    ...(user ? { auth: { user, pass: password ?? '' } } : {}),
    connectionTimeout: patience,
    greetingTimeout: patience,
    socketTimeout: patience,
    // A letter is made of what it is given: nothing is read or fetched for it.
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  const { subject, text, html } = letter(stop);
  try {
    await transport.sendMail({
      from,
      to: address,
      subject,
      text,
      html,
      messageId: `<${name}@needlecase>`,
      headers: {
        'List-Unsubscribe': `<${stop}>`,
        'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
      },
      ...(next
        ? {
            attachments: [
              { filename: 'next-visit.ics', content: next, contentType: 'text/calendar' },
            ],
          }
        : {}),
    });
    return 'sent';
  } catch (error) {
    return outcomeOf(error, handed);
  } finally {
    transport.close();
  }
}

/** What surely did not leave may be tried again; of what broke off while it was handed over nobody knows. */
function outcomeOf(error: unknown, handed: boolean): Outcome {
  const { code, responseCode, message } = error as {
    code?: string;
    responseCode?: number;
    message?: string;
  };
  if (code === 'EAUTH')
    return { refused: 'The mail server did not take the name or the password.' };
  if (responseCode !== undefined) {
    return { refused: `The mail server refused the letter (${responseCode}).` };
  }
  if (handed) {
    return {
      unsure:
        'The connection broke while the letter was handed over: it may not have arrived. It is not sent again.',
    };
  }
  if (code === 'ETIMEDOUT') return { refused: 'The mail server does not answer.' };
  if (code === 'ESOCKET' || code === 'ECONNECTION' || code === 'EDNS') {
    return { refused: 'The mail server cannot be reached.' };
  }
  return { refused: `The letter did not leave: ${message ?? 'no reason was given'}` };
}
