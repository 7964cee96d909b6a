import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import {
  actionsOf,
  drawCase,
  startState,
  visitQuestions,
  type PracticeAction,
} from '@needlecase/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { PocketComponent } from './pocket.component';
import { PracticeKeeper } from './practice-keeper';
import { sayPrice } from './price';
import { QuestionsComponent } from './questions.component';
import { partAt, stageOf } from './stage-view';

const machine = {
  name: 'The washer',
  kind: 'front-load-washer' as const,
  features: { filterAccess: 'front-left', drainDownHose: 'yes' } as const,
};
const kept = () => localStorage.getItem('needlecase.practice.game');

beforeEach(() => {
  localStorage.clear();
  TestBed.configureTestingModule({
    providers: [provideZonelessChangeDetection(), provideRouter([])],
  });
});

describe('what is practised on this device', () => {
  it('is kept with each act, and is the same after a reload', () => {
    const keeper = TestBed.inject(PracticeKeeper);
    keeper.begin('full', machine, undefined, 3);
    keeper.act('prep:unplugged');
    keeper.act('prep:cold');
    const { state } = keeper;
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const again = TestBed.inject(PracticeKeeper);
    expect(again.state()).toEqual(state());
    again.back();
    expect(again.game()!.acts).toEqual(['prep:unplugged']);
    again.again();
    expect(again.game()!.acts).toEqual([]);
    expect(again.par()).toBeGreaterThan(10);
  });

  it('does nothing, and keeps nothing, where something cannot be done', () => {
    const keeper = TestBed.inject(PracticeKeeper);
    keeper.act('prep:unplugged');
    expect(kept()).toBeNull();
    keeper.begin('full', machine, undefined, 3);
    const before = kept();
    keeper.act('prep:pulled-out');
    keeper.act('nonsense');
    keeper.back();
    expect(kept()).toBe(before);
  });

  it('follows another tab', () => {
    const keeper = TestBed.inject(PracticeKeeper);
    keeper.begin('full', machine, undefined, 3);
    const game = { ...keeper.game()!, acts: ['prep:unplugged'] };
    localStorage.setItem('needlecase.practice.game', JSON.stringify(game));
    window.dispatchEvent(new StorageEvent('storage', { key: 'needlecase.practice.game' }));
    expect(keeper.state()!.world.facts.power).toBe('off');
  });

  it('begins nothing from what is no game', () => {
    localStorage.setItem('needlecase.practice.game', '{"seed":"x"}');
    localStorage.setItem('needlecase.practice.memory', '{"cards":3}');
    const keeper = TestBed.inject(PracticeKeeper);
    expect(keeper.game()).toBeUndefined();
    expect(keeper.memory()).toEqual({ cards: {} });
  });
});

const game = drawCase({ seed: 3, level: 'full', machine });

describe('a pocket', () => {
  let fixture: ComponentFixture<PocketComponent>;
  let done: PracticeAction[];
  const buttons = () => [
    ...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLElement>('[data-act]'),
  ];
  const show = async (actions: readonly PracticeAction[]) => {
    fixture = TestBed.createComponent(PocketComponent);
    fixture.componentRef.setInput('actions', actions);
    done = [];
    fixture.componentInstance.act.subscribe((one) => done.push(one));
    await fixture.whenStable();
  };
  const all = (pocket: string) =>
    actionsOf(game, startState(game)).filter((one) => one.pocket === pocket);

  it('says prices before they are paid, and what cannot be done yet', async () => {
    await show(all('prepare'));
    const [pulled] = buttons().filter(({ dataset }) => dataset['act'] === 'prep:pulled-out');
    expect(pulled!.textContent).toContain('plug out first');
    expect(pulled!.getAttribute('aria-disabled')).toBe('true');
    pulled!.click();
    expect(done).toEqual([]);
    buttons()[0]!.click();
    expect(done.map(({ id }) => id)).toEqual(['prep:unplugged']);
  });

  it('holds back looks that say nothing of what was told, until they are asked for', async () => {
    const looks = all('look');
    await show(looks);
    const near = looks.filter(({ far }) => !far);
    expect(buttons()).toHaveLength(near.length);
    (fixture.nativeElement as HTMLElement).querySelector<HTMLElement>('.more')!.click();
    await fixture.whenStable();
    expect(buttons()).toHaveLength(looks.length);
  });

  it('goes round with the arrows', async () => {
    await show(all('prepare'));
    document.body.append(fixture.nativeElement as HTMLElement);
    buttons()[0]!.focus();
    buttons()[0]!.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp' }));
    expect(document.activeElement).toBe(buttons().at(-1));
    (fixture.nativeElement as HTMLElement).remove();
  });
});

describe('a price', () => {
  const one = { minutes: 12, waits: 0, spills: 0, money: 0, done: false };
  it.each([
    [{}, '12 min'],
    [{ waits: 302 }, '12 min, waits 5 h'],
    [{ spills: 14.23 }, '12 min, spills 14.2 L'],
    [{ minutes: 180, money: 120 }, '180 min, about 120'],
    [{ done: true }, ''],
    [{ done: true, minutes: 1, back: 'Plug it in' }, 'plug it in, 1 min'],
  ])('of %j is said "%s"', (change, said) => {
    expect(sayPrice({ ...one, ...change })).toBe(said);
  });

  it('is in the household’s money, by what a kWh costs there', () => {
    const call = { ...one, minutes: 180, money: 120 };
    expect(sayPrice(call, { currency: 'EUR', energyPrice: 0.31 })).toBe('180 min, about 120 EUR');
    expect(sayPrice(call, { currency: 'SEK', energyPrice: 3 })).toBe('180 min, about 1200 SEK');
    expect(sayPrice(call, { currency: 'USD' })).toBe('180 min, about 120 USD');
  });
});

describe('the stage', () => {
  it('shows how everything stands, and says it', () => {
    const view = stageOf(game, startState(game));
    expect(view.water).toBeGreaterThan(0.1);
    expect(view.parts.map(({ id }) => id)).toEqual([
      ...['plug', 'tap', 'glass', 'filter', 'hose', 'pipe', 'floor'],
    ]);
    expect(view.parts[0]).toMatchObject({ name: 'Plug', is: 'in' });
    expect(partAt('prep:unplugged', undefined)).toBe('plug');
    expect(partAt('fix:filter-clogged', 'pump-filter')).toBe('filter');
    expect(partAt('hint', undefined)).toBeUndefined();
  });

  it.each([
    ['vented-dryer', 'vented', ['screen', 'duct', 'hood']],
    ['heat-pump-dryer', 'condensing', ['screen', 'exchanger']],
    ['top-load-washer', 'top', ['tap', 'filter', 'pipe']],
  ] as const)('is another one for a %s', (kind, stage, parts) => {
    const other = drawCase({ seed: 1, level: 'one', machine: { name: '', kind, features: {} } });
    const view = stageOf(other, startState(other));
    expect(view.kind).toBe(stage);
    for (const part of parts) expect(view.parts.map(({ id }) => id)).toContain(part);
  });
});

describe('questions', () => {
  it('count the first answer alone, remember it, and say at the end what was missed', async () => {
    const questions = visitQuestions(machine, 'pump-filter', 5);
    const fixture = TestBed.createComponent(QuestionsComponent);
    fixture.componentRef.setInput('questions', questions);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    for (const [i, { right, options }] of questions.entries()) {
      const choices = page.querySelectorAll<HTMLElement>('.choice');
      // The first is missed.
      const wrong = (right + 1) % options.length;
      choices[i === 0 ? wrong : right]!.click();
      choices[right]!.click();
      await fixture.whenStable();
      page.querySelector<HTMLElement>('.btn-thread')!.click();
      await fixture.whenStable();
    }
    expect(page.textContent).toContain(`${questions.length - 1} of ${questions.length} right.`);
    expect(page.querySelector('.missed')!.textContent).toContain(questions[0]!.ask);
    const { cards } = TestBed.inject(PracticeKeeper).memory();
    expect(Object.keys(cards)).toHaveLength(questions.length);
    const due = (id: string) => Date.parse(cards[id]!.due);
    expect(due(questions[0]!.id)).toBeLessThan(due(questions[1]!.id));
  });
});
