/*
 * Makes validators.generated.js, queries.generated.js, access.generated.js and backup.generated.js from the schemas: Ajv compiles
 * with `new Function`, which a strict content policy forbids in the browser, so the code is written out
 * beforehand and the browser and the server run the same.
 */
import { DRAFTS, QUERIES } from '../core/src/model/schemas.js';
import {
  BACKUP_KINDS,
  BackupManifest,
  PickDraft,
  RestoreDraft,
} from '../core/src/formats/backup.js';
import { ACCESS_DRAFTS } from '../core/src/model/access.js';
import { writeValidatorMap, writeValidators } from './standalone.js';

await writeValidators('core/src/model/validators.generated', DRAFTS);
await writeValidators('core/src/model/queries.generated', QUERIES, { coerceTypes: true });
await writeValidatorMap('core/src/formats/backup.generated', {
  ...BACKUP_KINDS,
  manifest: BackupManifest,
  restore: RestoreDraft,
  pick: PickDraft,
});
await writeValidatorMap('core/src/model/access.generated', ACCESS_DRAFTS);
