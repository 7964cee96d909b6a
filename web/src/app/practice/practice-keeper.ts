import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import {
  drawCase,
  isGame,
  isMemory,
  NO_MEMORY,
  parOf,
  perform,
  remembered,
  startState,
  type LevelId,
  type PracticeCase,
  type PracticeGame,
  type PracticeMachine,
  type PracticeState,
} from '@needlecase/core';
import { timeNow } from '../data/clock';
import { readLocal, writeLocal } from '../data/local';

const GAME = 'practice.game';
const MEMORY = 'practice.memory';
const KEPT_UNDER = 'needlecase.';

/** A case on screen: how it was drawn, and how it stood after each act. */
interface OnScreen {
  game: PracticeGame;
  drawn: PracticeCase;
  /** As it was met, and after each act. */
  states: readonly PracticeState[];
}

/**
 * What is practised on this device: the case that is played, and what is remembered of the questions. It stays on the
 * device; nothing of it goes to the household's record.
 */
@Injectable({ providedIn: 'root' })
export class PracticeKeeper {
  readonly #on = signal<OnScreen | undefined>(read());
  /** Of the questions that were asked. */
  readonly memory = signal(readMemory());

  readonly game = computed(() => this.#on()?.game);
  readonly drawn = computed(() => this.#on()?.drawn);
  readonly state = computed(() => this.#on()?.states.at(-1));
  /** What a practised hand needs, minutes. */
  readonly par = computed(() => {
    const drawn = this.drawn();
    return drawn && parOf(drawn);
  });

  constructor() {
    // Another tab plays on, or has begun another.
    const told = ({ key }: StorageEvent): void => {
      if (key === KEPT_UNDER + GAME) this.#on.set(read());
      if (key === KEPT_UNDER + MEMORY) this.memory.set(readMemory());
    };
    window.addEventListener('storage', told);
    inject(DestroyRef).onDestroy(() => window.removeEventListener('storage', told));
  }

  /** Begins a case. @param seed 32 bits; another each time unless it is said */
  begin(
    level: LevelId,
    machine: PracticeMachine,
    fouling?: Readonly<Record<string, number>>,
    seed = crypto.getRandomValues(new Uint32Array(1))[0]!,
  ): void {
    this.#set({ seed, level, machine, ...(fouling ? { fouling } : {}), acts: [] });
  }

  /** Does something; what cannot be done changes nothing. */
  act(id: string): void {
    const on = this.#on();
    const before = on?.states.at(-1);
    if (!on || !before) return;
    const next = perform(on.drawn, before, id);
    if (next === before) return;
    const game = { ...on.game, acts: [...on.game.acts, id] };
    this.#on.set({ ...on, game, states: [...on.states, next] });
    writeLocal(GAME, game);
  }

  /** Takes the last act back. */
  back(): void {
    const on = this.#on();
    if (!on || on.game.acts.length === 0) return;
    const game = { ...on.game, acts: on.game.acts.slice(0, -1) };
    this.#on.set({ ...on, game, states: on.states.slice(0, -1) });
    writeLocal(GAME, game);
  }

  /** The same case from its beginning. */
  again(): void {
    const game = this.game();
    if (game) this.#set({ ...game, acts: [] });
  }

  /** Notes how a question was answered. */
  answered(id: string, right: boolean): void {
    this.memory.update((memory) => remembered(memory, id, right, timeNow()));
    writeLocal(MEMORY, this.memory());
  }

  #set(game: PracticeGame): void {
    this.#on.set(onScreen(game));
    writeLocal(GAME, game);
  }
}

function onScreen(game: PracticeGame): OnScreen {
  const drawn = drawCase(game);
  const states = [startState(drawn)];
  for (const act of game.acts) states.push(perform(drawn, states.at(-1)!, act));
  return { game, drawn, states };
}

/** What the device has of a case; none where it is not one, or cannot be drawn any more. */
function read(): OnScreen | undefined {
  const kept = readLocal<unknown>(GAME);
  if (!isGame(kept)) return undefined;
  try {
    return onScreen(kept);
  } catch {
    return undefined;
  }
}

function readMemory() {
  const kept = readLocal<unknown>(MEMORY);
  return isMemory(kept) ? kept : NO_MEMORY;
}
