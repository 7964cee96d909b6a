import { Observable } from 'rxjs';
import { v4 } from 'uuid';

/*
 * What a browser gives only in a secure context (https, or the machine itself): asked for here before it
 * is used, so that nothing else has to. Opened over http on the home network it is all missing, and the
 * program goes on without.
 */

/** An id of its own for an entry, an event or a deed; made everywhere, secure context or not. */
export const newId = (): string => v4();

/** Whether the page may do what only a secure context may. */
export const isSecure = (): boolean => globalThis.isSecureContext !== false;

/** Whether tabs of this browser can agree on who does something. */
export const hasLocks = (): boolean => typeof navigator !== 'undefined' && 'locks' in navigator;

/** Does work while no other tab has the lock of this name; at once where there are no locks. */
export async function locked<T>(name: string, work: () => Promise<T>): Promise<T> {
  return hasLocks() ? navigator.locks.request(name, work) : work();
}

/** As `locked`, but leaves it where another tab has the lock. @returns whether it was done */
export async function lockedIfFree(name: string, work: () => Promise<void>): Promise<boolean> {
  if (!hasLocks()) {
    await work();
    return true;
  }
  return navigator.locks.request(name, { ifAvailable: true }, async (lock) => {
    if (lock) await work();
    return lock !== null;
  });
}

/** As `locked`, where there are locks; refused when it is ended before its turn. */
export async function lockedInTurn(
  name: string,
  ended: AbortSignal,
  work: () => Promise<void>,
): Promise<void> {
  await navigator.locks.request(name, { signal: ended }, work);
}

/** Something that is held until it is let go. */
export interface Held {
  letGo(): void;
}

/** Keeps the screen from going dark; nothing where the browser cannot, or will not now. */
export async function holdScreen(): Promise<Held | undefined> {
  if (!('wakeLock' in navigator)) return undefined;
  const lock = await navigator.wakeLock.request('screen').catch(() => undefined);
  return lock && { letGo: () => void lock.release() };
}

/** Asks whether notices may be shown, where it was not asked before and the browser has them. */
export function askToNotify(): void {
  if (!isSecure() || typeof Notification === 'undefined') return;
  if (Notification.permission === 'default') void Notification.requestPermission();
}

/** Whether this browser can show notices at all. */
export const canNotify = (): boolean => isSecure() && typeof Notification !== 'undefined';

/** Whether notices were allowed, without asking. */
export const mayNotify = (): boolean => canNotify() && Notification.permission === 'granted';

/** Asks whether notices may be shown. @returns what was said */
export async function allowNotices(): Promise<boolean> {
  return canNotify() && (await Notification.requestPermission()) === 'granted';
}

/** Puts a text where it can be pasted from. @returns whether the browser lets a page do that */
export async function copyText(text: string): Promise<boolean> {
  if (!isSecure() || !('clipboard' in navigator)) return false;
  return navigator.clipboard.writeText(text).then(
    () => true,
    () => false,
  );
}

/** Shows a notice of the system, where that was allowed. */
export async function notify(text: string): Promise<void> {
  if (typeof Notification === 'undefined' || Notification.permission !== 'granted') return;
  const worker = await navigator.serviceWorker?.getRegistration();
  const said = { body: text, icon: 'icon-180.png' };
  if (worker?.active) await worker.showNotification('Needlecase', said);
  else new Notification('Needlecase', said);
}

/** Takes away what the worker kept of the server's answers. */
export async function forgetAnswers(): Promise<void> {
  if (typeof caches === 'undefined') return;
  const kept = (await caches.keys()).filter((name) => name.includes(':data:'));
  await Promise.all(kept.map((name) => caches.delete(name)));
}

/** Says at the installed application's icon how many are due; nothing where the browser has no such thing. */
export function badge(count: number): void {
  const set = (navigator as { setAppBadge?: (count: number) => Promise<void> }).setAppBadge;
  void set?.call(navigator, count).catch(() => undefined);
}

let speaker: AudioContext | undefined;

/** Readies what sounds later: browsers let a page sound only after a tap. */
export function readySound(): void {
  if (typeof AudioContext === 'undefined') return;
  speaker ??= new AudioContext();
  void speaker.resume().catch(() => undefined);
}

/** Two short tones, where they were made ready. */
export function sound(): void {
  if (speaker?.state !== 'running') return;
  const { currentTime: now, destination } = speaker;
  for (const [after, hertz] of [
    [0, 660],
    [0.25, 880],
  ] as const) {
    const tone = speaker.createOscillator();
    const volume = speaker.createGain();
    tone.frequency.value = hertz;
    volume.gain.setValueAtTime(0.2, now + after);
    volume.gain.exponentialRampToValueAtTime(0.001, now + after + 0.22);
    tone.connect(volume).connect(destination);
    tone.start(now + after);
    tone.stop(now + after + 0.25);
  }
}

/** So long after a page was loaded nobody is kept waiting for anything, ms. */
const SETTLED = 3000;
/** Where the browser is never idle, or cannot say so, ms. */
const AT_LAST = 8000;

/** Comes once, when a page was loaded a while ago and the browser has nothing else to do. */
export const whenIdle = (): Observable<void> =>
  new Observable((listener) => {
    const come = () => {
      listener.next();
      listener.complete();
    };
    const timer = setTimeout(() => {
      if (typeof requestIdleCallback === 'undefined') come();
      else requestIdleCallback(come, { timeout: AT_LAST });
    }, SETTLED);
    return () => clearTimeout(timer);
  });

/** What tabs of this browser tell each other under a name. */
export interface Channel<T> {
  heard: (news: T) => void;
  tell(news: T): void;
  close(): void;
}

/** Where the browser has no channels, each tab is alone. */
export function newChannel<T>(name: string): Channel<T> {
  const channel = typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(name);
  const made: Channel<T> = {
    heard: () => undefined,
    tell: (news) => channel?.postMessage(news),
    close: () => channel?.close(),
  };
  if (channel) channel.onmessage = ({ data }: MessageEvent<T>) => made.heard(data);
  return made;
}

const HANDED_ON = 'needlecase.page';

/**
 * An id of this page's. The page that is loaded after it in the same tab goes by the same: what this one had taken in
 * hand is not waited for.
 */
export function pageId(): string {
  let id: string | undefined;
  try {
    // Taken out at once: a tab that is doubled does not have it, too.
    id = sessionStorage.getItem(HANDED_ON) ?? undefined;
    sessionStorage.removeItem(HANDED_ON);
  } catch {
    /* a browser that keeps nothing: the next page waits its turn */
  }
  const mine = id ?? newId();
  addEventListener('pagehide', () => {
    try {
      sessionStorage.setItem(HANDED_ON, mine);
    } catch {
      /* as above */
    }
  });
  return mine;
}
