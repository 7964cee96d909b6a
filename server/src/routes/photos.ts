import * as schemas from '@needlecase/core/model/schemas';
import { readJpeg } from '../http/jpeg.js';
import { invalid, notFound, ProblemError } from '../http/problem.js';
import { fileRoute, pictureRoute, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';

/** A photo comes small: the browser makes it so. */
export const MOST_BYTES = 1_500_000;
const LONGEST_SIDE = 2048;

/** Photos of what was found, kept beside the entries that name them. */
export const photoRoutes = (store: Store): Route[] => [
  pictureRoute({
    method: 'put',
    path: '/api/v1/photos/{id}',
    summary: 'Keep a photo under an id of your own; the same again changes nothing',
    answers: schemas.Photo,
    handle: ({ params, body }) => {
      const jpeg = readJpeg(body);
      const wrong = (message: string) => invalid([{ field: 'photo', message }]);
      if (!jpeg) throw wrong('This is no JPEG, whatever it is called.');
      if (Math.max(jpeg.width, jpeg.height) > LONGEST_SIDE) {
        throw wrong(`Send it with at most ${LONGEST_SIDE} pixels on its longer side.`);
      }
      if (jpeg.metadata) {
        throw wrong('Take its metadata out first: it may tell where and when it was taken.');
      }
      if (jpeg.end === undefined) throw wrong('This picture is cut short: its end is missing.');
      const picture = body.subarray(0, jpeg.end);
      const there = store.photos.picture(params.id);
      if (there && !there.equals(picture)) {
        throw new ProblemError(409, 'There is another photo with this id.', {
          detail: 'Nothing was stored.',
        });
      }
      return { status: 201, body: store.photos.keep(params.id, picture, jpeg) };
    },
  }),
  fileRoute({
    path: '/api/v1/photos/{id}',
    summary: 'A photo',
    gives: 'image/jpeg',
    forGood: true,
    handle: ({ params }) => {
      const picture = store.photos.picture(params.id);
      if (!picture) throw notFound('photo');
      return { body: picture };
    },
  }),
];
