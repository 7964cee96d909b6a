import { dayOf } from '@needlecase/core';
import type { HindsightView } from '@needlecase/core/views/hindsight';
import request from 'supertest';
import { describe, expect, it } from 'vitest';
import { HOUSEHOLD } from '../../demo/household.js';
import { makeApp } from './app.js';
import { openDatabase } from './db/open.js';
import { ago, readyApp } from './testing/household.js';
import { fillDemo } from './work/demo.js';

describe('how well was foretold', () => {
  it('is between 70 and 90 in 100 inside the eight-in-ten range on the demo household', async () => {
    const app = makeApp(openDatabase(':memory:'));
    app.store.write(() => fillDemo(app.store, dayOf(Date.now(), HOUSEHOLD.zone)));
    const { body } = await request(app.express).get('/api/v1/hindsight').expect(200);
    const { before, after, widened, lines, cases } = body as HindsightView;
    expect(before!.openings).toBeGreaterThan(200);
    for (const { inside } of [before!, after!]) {
      expect(inside).toBeGreaterThan(0.7);
      expect(inside).toBeLessThan(0.9);
    }
    expect(before!.brier).toBeLessThan(before!.brierOfOne);
    expect(widened).toBeGreaterThanOrEqual(1);
    expect(lines.air!.openings + lines.water!.openings).toBeLessThanOrEqual(after!.openings);
    expect(cases.count).toBeGreaterThan(0);
    expect(cases.third).toBeGreaterThanOrEqual(cases.first);
    expect(cases.said).toBeGreaterThan(0);
    expect(cases.said).toBeLessThanOrEqual(1);
    expect(cases.brier).toBeGreaterThanOrEqual(0);
    expect(cases.brier).toBeLessThanOrEqual(1);
  });

  it('widens what is believed in a house whose finds scatter, once, and is told', async () => {
    const house = await readyApp();
    // Now clean, now blocked, after the same time: nothing that a steady rate would do.
    for (let i = 24; i >= 1; i--) {
      const entry = { kind: 'done', machineId: house.dryer.id, task: 'screen-wash' };
      const grade = i % 2 ? 0 : 4;
      await house.api
        .post('/api/v1/entries')
        .send({ ...entry, task: 'lint-screen-wash', grade, at: ago(30 * i) })
        .expect(201);
    }
    await house.hindsight.widen();
    const after = (await house.api.get('/api/v1/household').expect(200)).body;
    expect(after.widened).toBeGreaterThan(1.3);
    expect(after.version).toBe(house.household.version + 1);
    await house.hindsight.widen();
    expect((await house.api.get('/api/v1/household')).body.version).toBe(after.version);
    // Who writes the household anew hands it on.
    const { id: _id, version, ...draft } = after;
    const put = house.api.put('/api/v1/household').set('If-Match', `"${version}"`);
    expect((await put.send({ ...draft, name: 'New' }).expect(200)).body.widened).toBe(
      after.widened,
    );
  });

  it('is nothing in a house without a record', async () => {
    const house = await readyApp();
    const { body } = await house.api.get('/api/v1/hindsight').expect(200);
    expect(body).toEqual({ widened: 1, lines: {}, cases: { count: 0, first: 0, third: 0 } });
    await house.hindsight.widen();
    expect((await house.api.get('/api/v1/household')).body).not.toHaveProperty('widened');
  });
});
