/** What a route answers. */
export interface Answer<T = unknown> {
  status?: number;
  body: T;
  /** Version for the ETag of a record. */
  version?: number;
  /** The body as it is sent, where it was written out before. */
  written?: string;
  /** The secret that the device is known by from now on; null makes it forget the one it has. */
  secret?: string | null;
  /** What a file is to be called when it is kept. */
  fileName?: string;
  /** What a file is called that is shown rather than kept, and what it is. */
  shown?: string;
  type?: string;
}

/** A file that is given out as it lies on the disk. */
export interface FileOnDisk {
  path: string;
  /** Called when it was sent, or could not be. */
  done: () => Promise<void>;
}

/** Text that is given out as it is made, a piece at a time. */
export interface InPieces {
  pieces: Iterable<string>;
  /** Called when it was sent, or could not be. */
  done?: () => void;
}

export const isInPieces = (body: unknown): body is InPieces =>
  typeof body === 'object' && body !== null && 'pieces' in body;

export const isOnDisk = (body: unknown): body is FileOnDisk =>
  typeof body === 'object' && body !== null && 'path' in body && 'done' in body;
