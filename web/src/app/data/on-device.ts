/* What this device keeps by itself, under names of the program's own: it outlives a reload and a dead phone. */

const nameOf = (name: string): string => `needlecase.${name}`;

/** What is kept under a name; nothing where nothing is, or where it cannot be read. */
export function fromDevice<T>(name: string): T | undefined {
  try {
    return (JSON.parse(localStorage.getItem(nameOf(name)) ?? 'null') as T | null) ?? undefined;
  } catch {
    return undefined;
  }
}

/** Keeps something; where there is no room, what was there goes too, and what is kept lives with the page. */
export function ontoDevice(name: string, value: unknown): void {
  try {
    localStorage.setItem(nameOf(name), JSON.stringify(value));
  } catch {
    offDevice(name);
  }
}

export function offDevice(name: string): void {
  try {
    localStorage.removeItem(nameOf(name));
  } catch {
    /* a browser that keeps nothing has nothing to take away */
  }
}

/** What follows a prefix, of every name that begins with it. */
export function onDevice(prefix: string): string[] {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(nameOf(prefix)))
      .map((key) => key.slice(nameOf(prefix).length));
  } catch {
    return [];
  }
}
