import { AccessEvent, Aside } from '@needlecase/core/model/access';
import Type from 'typebox';
import { notFound } from '../../http/problem.js';
import { photoIn } from '../../http/photo.js';
import { doLater, fileRoute, keyOf, longRoute, type Route } from '../../http/route.js';
import { asDevice, byWhom, NOBODY, type Ground } from '../../access/ground.js';

/** What waits for a keeper's yes, and what happened. @param routes all that there are */
export function asideRoutes(ground: Ground, routes: () => readonly Route[]): Route[] {
  const { store, access } = ground;
  return [
    longRoute({
      method: 'get',
      path: '/api/v1/set-aside',
      summary:
        'What devices sent after they were taken out, and what was left by links, until somebody says whether it holds',
      answers: Type.Array(Aside),
      handle: () => ({ body: access.aside.list() }),
    }),
    fileRoute({
      path: '/api/v1/set-aside/{id}/photo',
      summary: 'The photo that waits with a note',
      gives: 'image/jpeg',
      handle: ({ params }) => {
        const photo = access.aside.get(params.id)?.photo;
        if (!photo) throw notFound('photo');
        return { body: photo };
      },
    }),
    longRoute({
      method: 'post',
      path: '/api/v1/set-aside/{id}/take',
      summary: 'Take in what waits: as noted by the device’s person, or by nobody of the house',
      answers: Type.Array(Aside),
      handle: (ask) => {
        const one = access.aside.get(ask.params.id);
        if (!one) throw notFound('thing that waits');
        const route = routes().find((known) => keyOf(known) === one.route)!;
        const device = one.deviceId === null ? undefined : access.devices.get(one.deviceId);
        const person = device && store.persons.get(device.personId);
        if (one.photo) keepPhoto(ground, one.body, one.photo);
        doLater(route, one, store, device && person ? asDevice(person, device) : NOBODY);
        store.write(() => {
          access.aside.done(one.id);
          access.events.note('taken in', { ...byWhom(ask), more: one.from });
        });
        return { body: access.aside.list() };
      },
    }),
    longRoute({
      method: 'delete',
      path: '/api/v1/set-aside/{id}',
      summary: 'Let go what waits',
      answers: Type.Array(Aside),
      handle: (ask) =>
        store.write(() => {
          const one = access.aside.get(ask.params.id);
          if (!one) throw notFound('thing that waits');
          access.aside.done(one.id);
          access.events.note('let go', { ...byWhom(ask), more: one.from });
          return { body: access.aside.list() };
        }),
    }),
    longRoute({
      method: 'get',
      path: '/api/v1/access-events',
      summary: 'Who came in, who was turned away, what was given and taken back: 180 days',
      answers: Type.Array(AccessEvent),
      handle: () => ({ body: access.events.list() }),
    }),
  ];
}

/** Under the id that what came with it names. */
function keepPhoto({ store }: Ground, body: unknown, bytes: Buffer): void {
  const [id] = (body as { photos: string[] }).photos;
  const { picture, jpeg } = photoIn(bytes);
  store.write(() => store.photos.keep(id!, picture, jpeg));
}
