import { dayOf } from '@needlecase/core';
import { wallSheet } from '@needlecase/core/print/wall-sheet';
import type { PlanView } from '@needlecase/core/views/plan';
import jsQr from 'jsqr';
import { writeFileSync } from 'node:fs';
import request from 'supertest';
import { beforeAll, describe, expect, it } from 'vitest';
import { HOUSEHOLD } from '../../../demo/household.js';
import { makeApp, type App } from '../app.js';
import { openDatabase } from '../db/open.js';
import { fillDemo } from '../work/demo.js';
import { shortOf } from '../work/short.js';
import { qr } from './drawings.js';
import { LABELS } from './labels.js';

let app: App;
let api: ReturnType<typeof request>;
beforeAll(() => {
  app = makeApp(openDatabase(':memory:'));
  api = request(app.express);
  app.store.write(() => fillDemo(app.store, dayOf(Date.now(), HOUSEHOLD.zone)));
});
const plan = async (): Promise<PlanView> => (await api.get('/api/v1/plan').expect(200)).body;

/** A code as a camera sees it, four points a module. */
function seen(svg: string): string | undefined {
  const [, edge] = /viewBox="0 0 (\d+) /.exec(svg)!;
  const size = Number(edge) * 4;
  const pixels = new Uint8ClampedArray(size * size * 4).fill(255);
  for (const [, x, y] of svg.matchAll(/M(\d+) (\d+)h1v1h-1z/g)) {
    for (let i = 0; i < 16; i++) {
      const at = ((Number(y) * 4 + (i >> 2)) * size + Number(x) * 4 + (i & 3)) * 4;
      pixels.fill(0, at, at + 3);
    }
  }
  return (jsQr as unknown as typeof jsQr.default)(pixels, size, size)?.data;
}

describe('a code on paper', () => {
  it.each([
    'http://192.168.178.43:5180/m/a1b2c3',
    'https://needlecase.local:5180/m/0f9e8d7c',
    'https://a-house-with-quite-a-long-name.example/m/00112233445566778899',
  ])('is read back by a decoder of others (jsQR): %s', (address) => {
    expect(seen(qr(address))).toBe(address);
  });

  it('is not read back where modules are turned: the check can fail', () => {
    const svg = qr('http://192.168.178.43:5180/m/a1b2c3');
    const broken = svg.replaceAll(/M1\d 1\dh1v1h-1z/g, '');
    expect(seen(broken)).not.toBe('http://192.168.178.43:5180/m/a1b2c3');
  });
});

describe('the sheet for the wall', () => {
  it('has what stands at the place, its next visits, and nothing that does not hold there', async () => {
    const view = await plan();
    const machines = app.store.machines.list();
    const cellar = wallSheet(view, machines, 'Cellar', 'http://house/m/x');
    expect(cellar.habits.map(({ who }) => who)).toEqual(['Washer', 'Dryer']);
    expect(cellar.habits[1]!.each.map(({ drawing }) => drawing)).toContain('flap');
    expect(cellar.never).toContain('The dryer without its lint screen');
    expect(cellar.never.join()).not.toContain('gas');
    const next = view.visits.filter(({ place, done }) => place === 'Cellar' && !done).slice(0, 3);
    expect(cellar.visits).toHaveLength(3);
    cellar.visits.forEach(({ tasks, more }, i) => {
      expect(tasks.length + more).toBe(next[i]!.tasks.length);
    });
    const studio = wallSheet(view, machines, 'Studio', 'http://house/m/x');
    expect(studio.habits.map(({ who }) => who)).toEqual(['Washer']);
    expect(studio.habits[0]!.each.map(({ drawing }) => drawing)).not.toContain('fold');
    expect(studio.alarm).toContain('112');
    expect(() => wallSheet(view, machines, 'Nowhere', '')).toThrow(RangeError);
  });
});

describe('sheets', () => {
  const pages = (pdf: Buffer) => (pdf.toString('latin1').match(/\/Type \/Page\b/g) ?? []).length;
  const print = async (path: string): Promise<Buffer> => {
    const { body } = await api.get(`/api/v1/prints/${path}`).expect(200).buffer(true);
    const pdf = body as Buffer;
    const folder = process.env['SHEETS'];
    if (folder) writeFileSync(`${folder}/${path.replaceAll(/\W+/g, '-')}.pdf`, pdf);
    return pdf;
  };
  const size = (pdf: Buffer) => /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(pdf.toString('latin1'))!;

  it.each(['a4', 'letter'] as const)(
    'for the wall are one page of %s at each place',
    async (paper) => {
      for (const place of ['Cellar', 'Top floor', 'Studio']) {
        const pdf = await print(`wall.pdf?paper=${paper}&place=${encodeURIComponent(place)}`);
        expect(pages(pdf), place).toBe(1);
        expect(size(pdf)[1]).toMatch(paper === 'a4' ? /^595/ : /^612/);
      }
    },
  );

  it.each(['a4', 'letter'] as const)('of the year and of labels are made on %s', async (paper) => {
    expect(pages(await print(`year.pdf?paper=${paper}`))).toBeGreaterThan(1);
    for (const label of Object.keys(LABELS)) {
      expect(
        pages(await print(`labels.pdf?paper=${paper}&size=${label}&copies=3`)),
      ).toBeGreaterThan(0);
    }
  });

  it('of a place that is not there, or on no paper there is, are refused beside the field', async () => {
    const wrong = await api.get('/api/v1/prints/wall.pdf?place=Attic').expect(422);
    expect(wrong.body.errors[0].field).toBe('place');
    await api.get('/api/v1/prints/wall.pdf?paper=a3').expect(422);
    await api.get('/api/v1/prints/labels.pdf?copies=999').expect(422);
  });
});

describe('a short name of a machine', () => {
  it('is as much of its id as tells it from the others', () => {
    const ids = ['aabbcc11-0000', 'aabbcc22-0000', 'ffeedd00-0000'].map((id) => ({ id }));
    expect(ids.map(({ id }) => shortOf(id, ids))).toEqual(['aabbcc11', 'aabbcc22', 'ffeedd']);
  });
});
