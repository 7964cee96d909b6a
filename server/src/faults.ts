import type { Logger } from 'pino';

/**
 * A fault that nobody caught leaves the program in a state that nobody knows: it is logged, told in a sentence,
 * and ends the process. What was stored is stored; whoever keeps the service starts it again.
 */
export function endOnFaults(log: Pick<Logger, 'fatal'>): void {
  const end = (error: unknown) => {
    log.fatal(error);
    const said = error instanceof Error ? error.message : String(error);
    console.error(`Needlecase ends, because something went wrong that it did not expect: ${said}`);
    process.exit(1);
  };
  process.on('uncaughtException', end);
  process.on('unhandledRejection', end);
}
