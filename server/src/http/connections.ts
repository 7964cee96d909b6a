import type { Server, Socket } from 'node:net';

/** Connections at once: in all, and of one address where it is not a proxy's. */
export const CONNECTIONS = { all: 800, each: 150 };

/**
 * Turns away who opens more connections than any household needs.
 * @param counts whether an address is one device's: that of a proxy is everybody's
 */
export function fewConnections(
  server: Server,
  counts: (address: string) => boolean,
  { all, each }: { all: number; each: number } = CONNECTIONS,
): void {
  server.maxConnections = all;
  const open = new Map<string, number>();
  server.on('connection', (socket: Socket) => {
    const address = socket.remoteAddress ?? '';
    if (!counts(address)) return;
    const now = (open.get(address) ?? 0) + 1;
    open.set(address, now);
    socket.once('close', () => {
      const left = open.get(address)! - 1;
      if (left > 0) open.set(address, left);
      else open.delete(address);
    });
    if (now > each) socket.destroy();
  });
}
