import { Observable } from 'rxjs';

/** What a worker says of what it was asked; the last of it ends the answer, and so does a problem. */
interface Said {
  problem?: string;
}

/**
 * Asks a worker of its own. Whoever goes ends it at once, with its worker.
 * @param begin makes the worker: its address is to stand where it is made, so that the build finds it
 * @param isLast whether nothing more comes after it
 */
export const askWorker = <A, S extends Said>(
  begin: () => Worker,
  asked: A,
  isLast: (said: S) => boolean,
): Observable<S> =>
  new Observable((listener) => {
    const worker = begin();
    worker.addEventListener('message', ({ data }: MessageEvent<S>) => {
      if (data.problem !== undefined) return listener.error(new Error(data.problem));
      listener.next(data);
      if (isLast(data)) listener.complete();
    });
    worker.addEventListener('error', ({ message }) =>
      listener.error(
        new Error(message || 'what reads it did not load. Try again with the connection.'),
      ),
    );
    worker.postMessage(asked);
    return () => worker.terminate();
  });
