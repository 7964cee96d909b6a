import { lookAtFile } from '@needlecase/core/formats/document-type';
import { MOST_DOCUMENT, type DocumentType } from '@needlecase/core/model/documents';
import { invalid } from './problem.js';

/** What a paper's file is. @throws 422 in words where it cannot be kept */
export function documentType(file: Buffer): DocumentType {
  const wrong = (message: string) => invalid([{ field: 'file', message }]);
  if (file.length > MOST_DOCUMENT) throw wrong('It is larger than 20 MB.');
  const look = lookAtFile(file);
  if (!look) {
    throw wrong('This is no PDF and no picture (JPEG, PNG, WebP), whatever it is called.');
  }
  if (!look.whole) throw wrong('This file is cut short: its end is missing.');
  return look.type;
}
