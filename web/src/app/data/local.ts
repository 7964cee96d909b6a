/* What this device keeps by itself, under names of the program's own: it outlives a reload and a dead phone. */

const nameOf = (name: string): string => `needlecase.${name}`;

/** What is kept under a name; nothing where nothing is, or where it cannot be read. */
export function readLocal<T>(name: string): T | undefined {
  try {
    return (JSON.parse(localStorage.getItem(nameOf(name)) ?? 'null') as T | null) ?? undefined;
  } catch {
    return undefined;
  }
}

/** Keeps something; where there is no room, what was there goes too, and what is kept lives with the page. */
export function writeLocal(name: string, value: unknown): void {
  try {
    localStorage.setItem(nameOf(name), JSON.stringify(value));
  } catch {
    removeLocal(name);
  }
}

export function removeLocal(name: string): void {
  try {
    localStorage.removeItem(nameOf(name));
  } catch {
    /* a browser that keeps nothing has nothing to take away */
  }
}

/** What follows a prefix, of every name that begins with it. */
export function localNames(prefix: string): string[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(nameOf(prefix)))
      .map((key) => key.slice(nameOf(prefix).length));
  } catch {
    return [];
  }
}
