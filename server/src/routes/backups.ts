import { rm } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import {
  BackupFile,
  BackupLook,
  BackupState,
  PickDraft,
  Restored,
  RestoreDraft,
} from '@needlecase/core/formats/backup';
import { checkPick, checkRestore } from '@needlecase/core/formats/check-backup';
import type { BackupKeeper } from '../backup/keeper.js';
import { fileRoute, longRoute, type Route } from '../http/route.js';

/** Backups: those that are made every day, one to take along, and what comes back of one. */
export const backupRoutes = (backups: BackupKeeper): Route[] => [
  longRoute({
    method: 'get',
    path: '/api/v1/backups',
    summary: 'How the backups stand: where they are, the last good one, what went wrong',
    answers: BackupState,
    handle: async () => ({ body: await backups.state() }),
  }),
  longRoute({
    method: 'post',
    path: '/api/v1/backups',
    summary: 'Make a backup now, in the folder where they are made every day',
    answers: BackupFile,
    handle: async () => ({ status: 201, body: await backups.make() }),
  }),
  fileRoute({
    path: '/api/v1/backup.zip',
    summary: 'A backup of everything, to take along',
    gives: 'application/zip',
    handle: async () => {
      const { path, name } = await backups.toTakeAlong();
      const done = () => rm(path, { force: true });
      return { body: { path, done }, fileName: name };
    },
  }),
  longRoute({
    method: 'post',
    path: '/api/v1/backups/look',
    summary: 'Hand a backup in: it is checked whole, and told what it would mean here',
    takes: 'application/zip',
    answers: BackupLook,
    handle: async ({ body }) => ({ body: await backups.receive(body as Readable) }),
  }),
  longRoute({
    method: 'post',
    path: '/api/v1/backups/pick',
    summary: 'Look at a backup that lies in the folder, as at one that is handed in',
    reads: { schema: PickDraft, check: checkPick },
    answers: BackupLook,
    handle: async ({ body }) => ({ body: await backups.pick((body as PickDraft).name) }),
  }),
  longRoute({
    method: 'post',
    path: '/api/v1/restore',
    summary:
      'Put a backup back that was looked at: in place of what is here, which is backed up first, or merged with it',
    reads: { schema: RestoreDraft, check: checkRestore },
    answers: Restored,
    handle: async ({ body }) => ({ body: await backups.restore(body as RestoreDraft) }),
  }),
];
