import { dayOf, weekOf } from '@needlecase/core';
import type { BackupFile } from '@needlecase/core/formats/backup';

/** How many backups are kept: the newest of so many days, of so many weeks and of so many months. */
const KEPT = { days: 7, weeks: 4, months: 12 } as const;
/** So many of what was here before a backup was put back. */
const KEPT_BEFORE = 3;

const NAME = /^(needlecase|before-restore)-(\d{4}-\d\d-\d\d)T(\d\d)-(\d\d)-(\d\d)Z\.zip$/;

/** A backup's name in the folder. @param now instant, milliseconds */
export const backupName = (now: number, what: 'needlecase' | 'before-restore'): string =>
  `${what}-${new Date(now).toISOString().slice(0, 19).replaceAll(':', '-')}Z.zip`;

/** When a backup was made, by its name; nothing where it is none. */
export function madeAt(name: string): string | undefined {
  const [, , day, hour, minute, second] = NAME.exec(name) ?? [];
  return day && `${day}T${hour}:${minute}:${second}.000Z`;
}

/** Whether it was made by the day, and not before a backup was put back. */
export const isDaily = ({ name }: Pick<BackupFile, 'name'>): boolean =>
  name.startsWith('needlecase-');

/** Clocks are off by some; a backup of later than this was dated by a clock that was wrong. ms */
const AHEAD_MS = 10 * 60_000;

/** Whether a backup says that it is of the future: it is none of the newest, whatever it says. */
export const isAhead = ({ made }: Pick<BackupFile, 'made'>, now: number): boolean =>
  Date.parse(made) > now + AHEAD_MS;

/**
 * Which backups are no longer wanted. Those that say they are of the future push no other out; they stay.
 * @param files the newest first
 * @param zone whose days, weeks and months they are
 * @param now instant, milliseconds
 * @example of a year of daily ones, 7 + 3 + 11 stay: the newest is also the newest of its week and its month
 */
export function unwanted(all: readonly BackupFile[], zone: string, now: number): BackupFile[] {
  const files = all.filter((file) => !isAhead(file, now));
  const daily = files.filter(isDaily);
  const day = ({ made }: BackupFile): string => dayOf(Date.parse(made), zone);
  const wanted = new Set<BackupFile>([
    ...newestOf(daily, day, KEPT.days),
    ...newestOf(daily, (file) => weekOf(day(file)), KEPT.weeks),
    ...newestOf(daily, (file) => day(file).slice(0, 7), KEPT.months),
    ...files.filter((file) => !isDaily(file)).slice(0, KEPT_BEFORE),
  ]);
  return files.filter((file) => !wanted.has(file));
}

/** The newest of each span of time, for so many spans. */
function newestOf(
  files: readonly BackupFile[],
  span: (file: BackupFile) => string,
  most: number,
): BackupFile[] {
  const newest = new Map<string, BackupFile>();
  for (const file of files) {
    if (!newest.has(span(file))) newest.set(span(file), file);
  }
  return [...newest.values()].slice(0, most);
}
