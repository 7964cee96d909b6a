import * as schemas from '@needlecase/core/model/schemas';
import { MOST_BYTES, type photoIn } from '../http/photo.js';
import { notFound, ProblemError } from '../http/problem.js';
import { fileRoute, pictureRoute, type Route } from '../http/route.js';
import type { Store } from '../store/store.js';
import type { Cells } from '../threads/cells.js';

/** Photos of what was found, kept beside the entries that name them. */
export const photoRoutes = (store: Store, cells: Cells): Route[] => [
  pictureRoute({
    method: 'put',
    path: '/api/v1/photos/{id}',
    summary: 'Keep a photo under an id of your own; the same again changes nothing',
    answers: schemas.Photo,
    most: MOST_BYTES,
    looks: ({ body }) => cells.read('picture', { bytes: body as Buffer }, 'photo'),
    handle: ({ params, looked }) => {
      const { picture: bytes, jpeg } = looked as ReturnType<typeof photoIn>;
      const picture = Buffer.from(bytes);
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
