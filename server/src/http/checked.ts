import type { DraftName } from '@needlecase/core/model/schemas';

const checked = new WeakMap<object, DraftName | undefined>();

/** Notes that a body was gone through, and held against a draft's schema where one is named. */
export const noteChecked = (body: object, draft: DraftName | undefined): void =>
  void checked.set(body, draft);

/** Whether a body was gone through already. */
export const isSound = (body: unknown): boolean => checked.has(body as object);

/** Whether a body was held against a draft's schema already. */
export const isChecked = (body: unknown, draft: DraftName): boolean =>
  checked.get(body as object) === draft;
