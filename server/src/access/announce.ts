import multicast from 'multicast-dns';
import { HOUSE_NAME, privateAddresses } from './names.js';

const TTL_S = 120;

/**
 * Answers in the house for `needlecase.local` (multicast DNS, RFC 6762).
 * @param failed is told where the network does not let it; nothing else depends on it
 * @returns what ends it
 */
export function announce(failed: (error: unknown) => void): () => void {
  const dns = multicast();
  dns.on('error', failed);
  dns.on('warning', failed);
  dns.on('query', ({ questions = [] }) => {
    const asked = questions.filter(({ name }) => name.toLowerCase() === HOUSE_NAME);
    const answers = asked.flatMap(({ type }) =>
      privateAddresses()
        .map((data) => ({ type: data.includes(':') ? ('AAAA' as const) : ('A' as const), data }))
        .filter((one) => one.type === type || (type as string) === 'ANY')
        .map((one) => ({ ...one, name: HOUSE_NAME, ttl: TTL_S })),
    );
    if (answers.length) dns.respond({ answers });
  });
  return () => dns.destroy();
}
