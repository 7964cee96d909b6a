import { inject, Injectable } from '@angular/core';
import { OutboxService } from './outbox.service';
import { newId } from './platform';

/** A file that is no photo to keep, in words that can be shown. */
export class PhotoProblem extends Error {}

/** A photo as it can be shown. */
export interface ShownPhoto {
  id: string;
  address: string;
  /** Where the server does not have it: why. */
  state: string;
}

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
    await this.#outbox.add({ photo: id, picture });
    this.#here.set(id, URL.createObjectURL(picture));
    return id;
  }

  /** Where a photo can be shown from: this device while it is not sent, else the server. */
  async shown(id: string): Promise<ShownPhoto> {
    const letter = await this.#outbox.photo(id).catch(() => undefined);
    const picture = letter?.picture;
    let address = this.#here.get(id) ?? `/api/v1/photos/${id}`;
    if (picture && !this.#here.has(id)) {
      address = URL.createObjectURL(picture);
      this.#here.set(id, address);
    }
    if (!letter) return { id, address, state: '' };
    const { aside } = letter;
    return { id, address, state: aside ? `Refused: ${aside.message}` : 'Not sent yet' };
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
