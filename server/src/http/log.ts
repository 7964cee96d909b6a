import type { RequestHandler } from 'express';
import type { Logger } from 'pino';
import { pinoHttp, stdSerializers } from 'pino-http';

/** Parts of an address that let somebody in. */
const SECRET = /([?&](?:[\w-]*(?:token|key|secret|password|code)[\w-]*)=)[^&#]*/gi;

/** Addresses whose next part lets somebody in; a law holds them against every route that has such a part. */
const LINK = /^(\/(?:shared|calendar|letters\/stop)\/)[^/?#]+/i;

/** An address as it may stand in a log. */
export const withoutSecrets = (address: string): string =>
  address.replaceAll(SECRET, '$1…').replace(LINK, '$1…');

/**
 * Logs requests, a line each: how it was asked, where, and what came of it. No headers and no bodies: neither
 * tokens nor what people write down belongs there.
 */
export const requestLog = (logger: Logger): RequestHandler =>
  pinoHttp({
    logger,
    customLogLevel: (_request, { statusCode }) => {
      if (statusCode >= 500) return 'error';
      return statusCode >= 400 ? 'info' : 'debug';
    },
    customSuccessMessage: ({ method = '' }, { statusCode }) => `${method} ${statusCode}`,
    customErrorMessage: ({ method = '' }, { statusCode }) => `${method} ${statusCode}`,
    serializers: {
      req: ({ id, method, url }: { id: unknown; method: string; url: string }) => ({
        id,
        method,
        url: withoutSecrets(url),
      }),
      res: ({ statusCode }: { statusCode: number }) => ({ status: statusCode }),
      err: (error: Error) => {
        const { type, message, stack } = stdSerializers.err(error);
        // What was to be stored stands after the statement.
        return { type, message: firstLine(message), stack: withoutParams(stack) };
      },
    },
  });

const firstLine = (message: string): string => message.split('\n')[0]!;
const withoutParams = (stack: string): string => stack.replace(/^params: .*$/m, '');
