import type { FiledKind } from '@needlecase/core/formats/backup';
import { lookAtFile } from '@needlecase/core/formats/document-type';
import { readJpeg } from '../http/jpeg.js';

/** Whether a file is what a thing of its kind has. */
export const isItsFile = (kind: FiledKind, file: Buffer): boolean =>
  kind === 'photos' ? readJpeg(file) !== undefined : lookAtFile(file) !== undefined;

/** What the file of a thing is, in words. */
export const FILE_WORDS: Readonly<Record<FiledKind, string>> = {
  photos: 'picture',
  documents: 'paper',
};
