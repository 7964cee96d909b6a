import { openDB, type DBSchema } from 'idb';

/** What another application shared with this one. */
export interface SharedHere {
  files: Blob[];
  text: string;
}

interface Shelf extends DBSchema {
  shared: { key: string; value: SharedHere };
}

/** The shelf that the worker puts it on. */
const open = () =>
  openDB<Shelf>('needlecase-shared', 1, {
    upgrade: (database) => void database.createObjectStore('shared'),
  });

/** What was shared last, and nobody has dealt with yet. */
export async function sharedLast(): Promise<SharedHere | undefined> {
  const shelf = await open();
  try {
    return await shelf.get('shared', 'last');
  } finally {
    shelf.close();
  }
}

/** Takes it off the shelf. */
export async function dealtWith(): Promise<void> {
  const shelf = await open();
  await shelf.delete('shared', 'last');
  shelf.close();
}
