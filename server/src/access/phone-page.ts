import { wordlist } from '@scure/bip39/wordlists/english.js';
import { createHash } from 'node:crypto';
import type { Express, Request } from 'express';
import { readCertificate } from './authority.js';
import { hostOf } from './names.js';
import { escaped, plainPage } from './plain-page.js';
import type { Reach } from './reach.js';

const WORDS = 6;
const BITS_A_WORD = 11;

/** The first 66 bits of a certificate's SHA-256 fingerprint as six words, to be held against those on another screen. */
export function inWords(pem: string): string {
  const digest = createHash('sha256').update(readCertificate(pem).der).digest();
  const bits = BigInt(`0x${digest.toString('hex')}`);
  const words = Array.from({ length: WORDS }, (_, i) => {
    const place = 256 - BITS_A_WORD * (i + 1);
    return wordlist[Number((bits >> BigInt(place)) & 2047n)]!;
  });
  return words.join(' ');
}

const AUTHORITY = '/phone/needlecase.crt';

/** The https address of this server, by the name that was asked. */
export const safeAddress = (request: Request, { origin, tlsPort }: Reach): string | undefined => {
  if (origin?.startsWith('https:')) return origin;
  return tlsPort ? `https://${hostOf(request.headers.host)}:${tlsPort}` : undefined;
};

/** The page that a phone begins with, also over plain http: the certificate, how it is put in, whether it holds. */
export function servePhonePage(app: Express, reach: () => Reach): void {
  // The page of plain http asks whether the safe address is there; to any page that is all it says.
  app.use('/api/v1/health', (_request, response, next) => {
    response.set('Cross-Origin-Resource-Policy', 'cross-origin');
    next();
  });
  app.get('/phone', (request, response) => {
    const known = reach();
    const safe = safeAddress(request, known);
    response.set({
      'Cache-Control': 'no-store',
      'X-Robots-Tag': 'noindex',
      'Content-Security-Policy': [
        "default-src 'none'",
        "script-src 'self'",
        "style-src 'unsafe-inline'",
        "img-src 'self'",
        `connect-src 'self' ${safe ?? ''}`,
        "base-uri 'none'",
        "form-action 'none'",
        "frame-ancestors 'none'",
      ].join('; '),
    });
    response.type('html').send(page(safe, known.authority && inWords(known.authority)));
  });
  app.get('/phone/try.js', (_request, response) => {
    response.type('js').set('Cache-Control', 'no-cache').send(SCRIPT);
  });
  app.get(AUTHORITY, (_request, response, next) => {
    const { authority } = reach();
    if (!authority) return next();
    response
      .type('application/x-x509-ca-cert')
      .set('Cache-Control', 'no-store')
      .attachment('needlecase.crt')
      .send(readCertificate(authority).der);
  });
}

const SCRIPT = `const { safe } = document.currentScript.dataset;
const code = location.hash;
const at = (id) => document.getElementById(id);
const show = (id, on) => { const one = at(id); if (one) one.hidden = !on; };
for (const link of document.querySelectorAll('a[data-pair]')) link.href += code;
async function attempt(asked) {
  if (!safe) return;
  show('trying', true);
  show('not-yet', false);
  try {
    await fetch(safe + '/api/v1/health', { mode: 'no-cors', cache: 'no-store' });
    show('holds', true);
    show('steps', false);
    if (asked) location.href = safe + '/pair' + code;
  } catch {
    show('not-yet', asked);
  }
  show('trying', false);
}
at('try')?.addEventListener('click', () => void attempt(true));
void attempt(false);
`;

const KINDS: readonly [string, readonly string[]][] = [
  [
    'A phone that saves the file, and says no more',
    [
      'Open Settings and search there for “certificate”.',
      'Choose to install a certificate from the phone’s storage, of the kind “CA certificate”. It warns you: that is meant for certificates of strangers.',
      'Choose the file needlecase.crt.',
    ],
  ],
  [
    'A phone or tablet that says “profile downloaded”',
    [
      'Open Settings: “Profile downloaded” stands near the top. Open it, and install it.',
      'Then Settings, General, About, Certificate trust settings: turn on full trust for “Needlecase of …”.',
    ],
  ],
  [
    'A computer',
    [
      'Open the browser’s settings and search for “certificates”.',
      'Under “Authorities”, import needlecase.crt, and let it vouch for websites.',
    ],
  ],
];

const page = (safe: string | undefined, words: string | undefined): string =>
  plainPage(
    'Needlecase on this phone',
    `<h1>Needlecase on this phone</h1>
<p>This is your own household’s server. It keeps what is done at your washers and dryers, and tells what is due.</p>
${safe ? withSafe(safe, words) : WITHOUT}
<script src="/phone/try.js" data-safe="${escaped(safe ?? '')}" defer></script>`,
  );

const WITHOUT = `<p>It is reached over plain http only. Loads, visits, trouble and measuring work; without reception nothing does.</p>
<p><a class="button" data-pair href="/pair">Go on</a></p>`;

function withSafe(safe: string, words: string | undefined): string {
  const address = escaped(safe);
  const steps = KINDS.map(
    ([kind, todo]) =>
      `<details><summary>${kind}</summary><ol>${todo.map((one) => `<li>${one}</li>`).join('')}</ol></details>`,
  ).join('\n');
  const certificate = words
    ? `<h2>1. Get the household’s certificate</h2>
<p>With it this phone knows your server, and nobody else in the network can read along. It can vouch for addresses in a house, and for no site of the internet.</p>
<p><a class="button" href="${AUTHORITY}">Get the certificate</a></p>
<p class="said">The same six words stand under House, Phones, on the screen where you began:</p>
<strong class="words">${words}</strong>
<h2>2. Put it in</h2>
${steps}
<h2>3. Try it</h2>`
    : '<h2>Try the safe address</h2>';
  return `<p id="trying" class="said" role="status" hidden>Trying the safe address…</p>
<section id="holds" hidden>
<p><strong>The safe address works on this phone.</strong></p>
<p><a class="button" data-pair href="${address}/pair">Go on</a></p>
</section>
<section id="steps">
${certificate}
<p><button class="button" id="try" type="button">Try it</button></p>
<p id="not-yet" role="alert" hidden>This phone does not trust it yet. Look whether each step under 2 was done to its end.</p>
<h2>Or go on without</h2>
<p class="said">Over plain http nothing works without reception, the screen goes dark during a visit, and others in the network could read along. You can do this later.</p>
<p><a class="button plain" data-pair href="/pair">Go on without the certificate</a></p>
</section>`;
}
