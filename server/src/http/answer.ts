/** What a route answers. */
export interface Answer<T = unknown> {
  status?: number;
  body: T;
  /** Version for the ETag of a record. */
  version?: number;
  /** What a file is to be called when it is kept. */
  fileName?: string;
}
