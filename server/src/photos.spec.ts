import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { beforeEach, describe, expect, it } from 'vitest';
import { makeApp } from './app.js';
import { openDatabase } from './db/open.js';
import { readJpeg } from './http/jpeg.js';
import { jpeg } from './testing/pictures.js';

const segment = (marker: number, body: string): Buffer =>
  Buffer.concat([Buffer.from([0xff, marker, 0, body.length + 2]), Buffer.from(body)]);

describe('photos', () => {
  let app: Express;
  const put = (id: string, body: Buffer, type = 'image/jpeg') =>
    request(app).put(`/api/v1/photos/${id}`).set('Content-Type', type).send(body);

  beforeEach(() => {
    app = makeApp(openDatabase(':memory:')).express;
  });

  it('are stored under the id that was given, once, and come back as they are', async () => {
    const id = randomUUID();
    const picture = jpeg(1600, 1200);
    const answer = await put(id, picture).expect(201);
    expect(answer.body).toEqual({ id, width: 1600, height: 1200, bytes: picture.length });
    await put(id, picture).expect(201);
    const back = await request(app).get(`/api/v1/photos/${id}`).expect(200);
    expect(back.headers['content-type']).toBe('image/jpeg');
    expect(back.headers['cache-control']).toContain('immutable');
    expect(Buffer.compare(back.body as Buffer, picture)).toBe(0);
  });

  it.each<[string, Buffer, RegExp]>([
    ['a text', Buffer.from('not a picture'), /no JPEG/],
    ['nothing', Buffer.from([0]), /no JPEG/],
    ['too many pixels', jpeg(4000, 3000), /2048 pixels/],
    ['a place in it', jpeg(100, 100, segment(0xe1, 'Exif\0\0')), /metadata/],
    ['a comment in it', jpeg(100, 100, segment(0xfe, 'Kiln Lane')), /metadata/],
  ])('are refused by the field with %s, and nothing is stored', async (_what, body, message) => {
    const id = randomUUID();
    const answer = await put(id, body).expect(422);
    const { errors } = answer.body as { errors: { field: string; message: string }[] };
    expect(errors).toEqual([{ field: 'photo', message: expect.stringMatching(message) as string }]);
    await request(app).get(`/api/v1/photos/${id}`).expect(404);
  });

  it('are refused when too large, of another type, or under no id', async () => {
    const large = await put(randomUUID(), Buffer.alloc(2_000_000)).expect(413);
    expect(large.body).toMatchObject({ title: 'This is larger than 1.5 MB.' });
    await put(randomUUID(), Buffer.from('GIF89a'), 'image/gif').expect(415);
    await put('not-an-id', jpeg(10, 10)).expect(422);
  });

  it('are read by their segments, whatever stands between', () => {
    const profiled = jpeg(30, 20, segment(0xe2, 'ICC_PROFILE'));
    expect(readJpeg(profiled)).toEqual({
      width: 30,
      height: 20,
      metadata: false,
      end: profiled.length,
    });
    expect(readJpeg(jpeg(30, 20, segment(0xe2, 'x'), segment(0xed, 'y')))!.metadata).toBe(true);
    expect(readJpeg(Buffer.from('\x89PNG\r\n\x1a\n'))).toBeUndefined();
  });
});
