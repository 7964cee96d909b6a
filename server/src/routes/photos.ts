import * as schemas from '@needlecase/core/model/schemas';
import { readJpeg } from '../http/jpeg.js';
import { invalid, notFound } from '../http/problem.js';
import type { Route } from '../http/route.js';
import type { Store } from '../store/store.js';

/** A photo comes small: the browser makes it so. */
export const MOST_BYTES = 1_500_000;
const LONGEST_SIDE = 2048;

/** Photos of what was found, kept beside the entries that name them. */
export const photoRoutes = (store: Store): Route[] => [
  {
    method: 'put',
    path: '/api/v1/photos/{id}',
    summary: 'Keep a photo under an id of your own; the same again changes nothing',
    takes: 'image/jpeg',
    answers: schemas.Photo,
    handle: ({ params, body }) => {
      const bytes = body as Buffer;
      const jpeg = readJpeg(bytes);
      const wrong = (message: string) => invalid([{ field: 'photo', message }]);
      if (!jpeg) throw wrong('This is no JPEG, whatever it is called.');
      if (Math.max(jpeg.width, jpeg.height) > LONGEST_SIDE) {
        throw wrong(`Send it with at most ${LONGEST_SIDE} pixels on its longer side.`);
      }
      if (jpeg.metadata) {
        throw wrong('Take its metadata out first: it may tell where and when it was taken.');
      }
      return { status: 201, body: store.photos.keep(params.id, bytes, jpeg) };
    },
  },
  {
    method: 'get',
    path: '/api/v1/photos/{id}',
    summary: 'A photo',
    answers: schemas.Photo,
    gives: 'image/jpeg',
    forGood: true,
    handle: ({ params }) => {
      const picture = store.photos.picture(params.id);
      if (!picture) throw notFound('photo');
      return { body: picture };
    },
  },
];
