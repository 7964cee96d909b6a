import { eq } from 'drizzle-orm';
import type { Photo } from '@needlecase/core';
import type { Db } from '../db/open.js';
import { photos } from '../db/tables.js';

/** Pictures, each stored once under the id that the client gave it. */
export class PhotoStore {
  constructor(private readonly db: Db) {}

  /** The picture itself, a JPEG. */
  picture(id: string): Buffer | undefined {
    return this.db.select({ picture: photos.picture }).from(photos).where(eq(photos.id, id)).get()
      ?.picture;
  }

  /** Stores a picture; one that is there already stays as it is. */
  keep(id: string, picture: Buffer, { width, height }: Pick<Photo, 'width' | 'height'>): Photo {
    this.db
      .insert(photos)
      .values({ id, width, height, picture, storedAt: Date.now() })
      .onConflictDoNothing()
      .run();
    return { id, width, height, bytes: picture.length };
  }
}
