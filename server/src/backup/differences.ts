import { sayEntry, type Entry } from '@needlecase/core';
import type { BackupDifference, BackupKind, Side } from '@needlecase/core/formats/backup';
import { differing } from '@needlecase/core/formats/differing';
import type { Db } from '../db/open.js';
import { linesOf } from './parts.js';

/** A record: changed in place, each time with a higher version. */
interface Record_ {
  id: string;
  version: number;
}

/** The kinds whose things are records; how each is called, and by what else than its id it is the same. */
const RECORDS: Partial<
  Record<BackupKind, { name: (record: never) => string; same?: (record: never) => string }>
> = {
  household: { name: () => 'The household' },
  persons: { name: ({ name }: { name: string }) => `Person “${name}”` },
  machines: { name: ({ name }: { name: string }) => `Machine “${name}”` },
  supplies: {
    name: ({ name }: { name: string }) => `Supply “${name}”`,
    same: ({ item }: { item: string }) => item,
  },
  runs: {
    name: ({ startedAt }: { startedAt: string }) => `Visit begun ${startedAt.slice(0, 10)}`,
  },
  'code-sheets': {
    name: ({ maker, family }: Family) => `Codes of ${maker}, ${family}`,
    same: ({ maker, family }: Family) => JSON.stringify([maker, family]),
  },
  'vent-runs': { name: ({ name }: { name: string }) => `Vent run “${name}”` },
  absences: { name: ({ from, to }: { from: string; to: string }) => `Away ${from} to ${to}` },
  'busy-calendars': { name: ({ name }: { name: string }) => `Calendar read in, “${name}”` },
  'planned-visits': {
    name: ({ day, place }: { day: string; place: string }) => `Visit planned for ${day}, ${place}`,
  },
};
interface Family {
  maker: string;
  family: string;
}
export const RECORD_KINDS = Object.keys(RECORDS) as (keyof typeof RECORDS)[];

/** A record that is here and there, and not the same. */
export interface Pair {
  kind: BackupKind;
  ours: Record_;
  theirs: Record_;
  difference: BackupDifference;
}

/** Records of a kind: those that are only there, and those that are otherwise there. */
export function compareRecords(
  kind: BackupKind,
  ours: Db,
  theirs: Db,
): { added: Record_[]; pairs: Pair[] } {
  const { name, same } = RECORDS[kind]! as {
    name: (record: Record_) => string;
    same?: (record: Record_) => string;
  };
  const here = [...linesOf(ours, kind)] as Record_[];
  const byId = new Map(here.map((one) => [one.id, one]));
  const bySame = new Map(same ? here.map((one) => [same(one), one]) : []);
  const added: Record_[] = [];
  const pairs: Pair[] = [];
  for (const one of linesOf(theirs, kind) as Iterable<Record_>) {
    const known = byId.get(one.id) ?? (same && bySame.get(same(one)));
    if (!known) {
      added.push(one);
      continue;
    }
    const fields = differing(known, one, ['id', 'version']);
    if (fields.length === 0) continue;
    pairs.push({
      kind,
      ours: known,
      theirs: one,
      difference: {
        id: known.id,
        what: name(known),
        fields: fields.slice(0, MOST_FIELDS),
        ...proposed(kind, known, one),
      },
    });
  }
  return { added, pairs };
}

const MOST_FIELDS = 12;

/** The record that was changed more often; a visit that is finished cannot go on elsewhere. */
function proposed(kind: BackupKind, ours: Record_, theirs: Record_): { proposed?: Side } {
  if (kind === 'runs') {
    const [a, b] = [ours, theirs].map((one) => (one as { state?: string }).state === 'finished');
    if (a !== b) return { proposed: a ? 'ours' : 'theirs' };
  }
  if (ours.version === theirs.version) return {};
  return { proposed: ours.version > theirs.version ? 'ours' : 'theirs' };
}

/** Entries that are only there: which are taken, and which stand against what took their place here. */
export interface NewEntries {
  /** Their ids, in the order of coming in. */
  taken: string[];
  /** An entry whose place was taken here by one, and there by another. */
  forks: Fork[];
  /** Of visits that were finished here too: the same work would be there twice. */
  doubled: string[];
}

export interface Fork {
  /** The last entry that both sides have. */
  root: string;
  /** The end of the chain here. */
  ours: Entry;
  /** The chain there, in its order. */
  theirs: Entry[];
  difference: BackupDifference;
}

type Link = Pick<Entry, 'id' | 'revises' | 'runId'>;

/** Looks through the logs of both sides; each is walked once, and only what is new there is held. */
export function compareEntries(ours: Db, theirs: Db): NewEntries {
  const known = new Set<string>();
  /** What took the place of an entry here. */
  const after = new Map<string, Entry>();
  for (const entry of linesOf(ours, 'entries') as Iterable<Entry>) {
    known.add(entry.id);
    if (entry.revises) after.set(entry.revises, entry);
  }
  const finishedHere = new Set(
    ([...linesOf(ours, 'runs')] as { id: string; state: string }[])
      .filter(({ state }) => state === 'finished')
      .map(({ id }) => id),
  );
  const there = new Map<string, Entry>();
  const found: NewEntries = { taken: [], forks: [], doubled: [] };
  /** Entries that stand on one that is not taken as it is, by that entry. */
  const aside = new Map<string, Fork | 'doubled'>();
  for (const entry of linesOf(theirs, 'entries') as Iterable<Entry>) {
    if (entry.revises || after.has(entry.id)) there.set(entry.id, entry);
    if (known.has(entry.id)) continue;
    const { id, revises, runId } = entry satisfies Link;
    const on = revises === undefined ? undefined : aside.get(revises);
    if (on === 'doubled' || (revises === undefined && runId && finishedHere.has(runId))) {
      aside.set(id, 'doubled');
      found.doubled.push(id);
    } else if (on) {
      on.theirs.push(entry);
      aside.set(id, on);
    } else if (revises !== undefined && after.has(revises)) {
      const fork = forkAt(revises, endOf(revises, after), entry);
      found.forks.push(fork);
      aside.set(id, fork);
    } else {
      found.taken.push(id);
    }
  }
  // Where both sides say the same in the end, nobody needs to be asked.
  found.forks = found.forks.filter((fork) => {
    const end = fork.theirs.at(-1)!;
    fork.difference.fields = differing(fork.ours, end, UNTOLD).slice(0, MOST_FIELDS);
    return fork.difference.fields.length > 0;
  });
  return found;
}

/** Fields that say how an entry came to be, not what happened. */
const UNTOLD = ['id', 'revises', 'revisedBy', 'recordedAt', 'author', 'source', 'deviceAt'];

function endOf(id: string, after: ReadonlyMap<string, Entry>): Entry {
  let end = after.get(id)!;
  for (let next = after.get(end.id); next; next = after.get(end.id)) end = next;
  return end;
}

const forkAt = (root: string, ours: Entry, first: Entry): Fork => ({
  root,
  ours,
  theirs: [first],
  difference: {
    id: root,
    what: `Entry of ${first.at.slice(0, 10)}: ${sayEntry(ours)}`,
    fields: [],
  },
});
