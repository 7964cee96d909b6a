import { inject, Injectable } from '@angular/core';
import { OutboxService } from './outbox.service';
import { newId } from './platform';

/** A file that is no photo to keep, in words that can be shown. */
export class PhotoProblem extends Error {}

const LONGEST_SIDE = 1600;
const MOST_BYTES = 1_400_000;
/** Larger files are not even opened: a phone would run out of memory. */
const MOST_FILE_BYTES = 50_000_000;
const QUALITIES = [0.82, 0.7, 0.55];

/** Photos: made small in the browser, kept on the device, sent when there is a connection. */
@Injectable({ providedIn: 'root' })
export class PhotosService {
  readonly #outbox = inject(OutboxService);
  readonly #here = new Map<string, string>();

  /**
   * Keeps a photo. Drawn anew, it carries none of the file's metadata.
   * @returns its id
   * @throws PhotoProblem where the file cannot be kept
   */
  async keep(file: Blob): Promise<string> {
    const picture = await shrunk(file);
    const id = newId();
    try {
      await this.#outbox.add({ photo: id, picture });
    } catch {
      throw new PhotoProblem(
        'This device has no room for the photo. Free some space and try again.',
      );
    }
    this.#here.set(id, URL.createObjectURL(picture));
    return id;
  }

  /** Where a photo can be shown from: this device while it is not sent, else the server. */
  async addressOf(id: string): Promise<string> {
    const here = this.#here.get(id);
    if (here) return here;
    const waiting = await this.#outbox.photo(id).catch(() => undefined);
    if (!waiting) return `/api/v1/photos/${id}`;
    const address = URL.createObjectURL(waiting);
    this.#here.set(id, address);
    return address;
  }
}

/** The picture as a JPEG that is small enough. @throws PhotoProblem */
async function shrunk(file: Blob): Promise<Blob> {
  if (file.size > MOST_FILE_BYTES) {
    throw new PhotoProblem(
      `This file has ${Math.round(file.size / 1e6)} MB; photos up to ${MOST_FILE_BYTES / 1e6} MB are taken.`,
    );
  }
  const picture = await opened(file);
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  const paper = canvas.getContext('2d')!;
  // What is transparent would turn black.
  paper.fillStyle = '#fff';
  paper.fillRect(0, 0, canvas.width, canvas.height);
  paper.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  for (const quality of QUALITIES) {
    const jpeg = await new Promise<Blob | null>((done) =>
      canvas.toBlob(done, 'image/jpeg', quality),
    );
    if (jpeg && jpeg.size <= MOST_BYTES) return jpeg;
  }
  throw new PhotoProblem('This picture cannot be made small enough. Take another one.');
}

async function opened(file: Blob): Promise<ImageBitmap> {
  try {
    return await createImageBitmap(file, { imageOrientation: 'from-image' });
  } catch {
    throw new PhotoProblem('This file is no picture that can be read. Take a JPEG, PNG or WebP.');
  }
}
