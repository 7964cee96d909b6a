import type { Visit } from '@needlecase/core';
import type { Express } from 'express';
import { randomUUID } from 'node:crypto';
import request from 'supertest';
import { beforeEach, describe, expect, it } from 'vitest';
import { makeApp } from './app.js';
import { openDatabase } from './db/open.js';

const HOUSEHOLD = {
  name: 'Loom House',
  zone: 'Europe/Vienna',
  units: 'metric',
  school: 'steady',
  risk: 0.1,
};
const MACHINE = {
  name: 'Größe & Wäsche',
  kind: 'front-load-washer',
  place: 'Bath',
  features: {},
  habits: [],
  loadsPerWeek: 5,
};

describe('sheets to print', () => {
  let app: Express;
  let machineId: string;

  beforeEach(async () => {
    app = makeApp(openDatabase(':memory:')).express;
    await request(app)
      .post('/api/v1/setup')
      .send({ household: HOUSEHOLD, machines: [MACHINE] });
    const { body } = await request(app).get('/api/v1/machines');
    machineId = (body as { id: string }[])[0]!.id;
  });

  const pdf = async (path: string): Promise<{ bytes: Buffer; name: string }> => {
    const answer = await request(app).get(path).responseType('blob').expect(200);
    expect(answer.headers['content-type']).toBe('application/pdf');
    const bytes = answer.body as Buffer;
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect(bytes.subarray(-6).toString()).toContain('EOF');
    return { bytes, name: answer.headers['content-disposition']! };
  };

  it('are made of a machine’s record, under its name', async () => {
    const { bytes, name } = await pdf(`/api/v1/machines/${machineId}/record.pdf`);
    expect(bytes.length).toBeGreaterThan(8000);
    expect(decodeURIComponent(name)).toContain('größe-wäsche.pdf');
  });

  it('are made of a visit, while it is open and when it is done', async () => {
    const tasks = [{ machineId, task: 'dispenser' }];
    const { body } = await request(app).post('/api/v1/runs').send({ tasks });
    const visit = body as Visit;
    const open = await pdf(`/api/v1/runs/${visit.id}/visit.pdf`);
    await request(app).post(`/api/v1/runs/${visit.id}/finish`).expect(200);
    const done = await pdf(`/api/v1/runs/${visit.id}/visit.pdf`);
    expect(open.bytes.length).toBeGreaterThan(done.bytes.length);
  });

  it('say that there is no such machine or visit', async () => {
    await request(app).get(`/api/v1/machines/${randomUUID()}/record.pdf`).expect(404);
    await request(app).get(`/api/v1/runs/${randomUUID()}/visit.pdf`).expect(404);
    await request(app).get('/api/v1/runs/nonsense/visit.pdf').expect(422);
  });
});
