/** Whether a key asks for the find box: a slash, typed into nothing. */
export function asksToFind(event: KeyboardEvent): boolean {
  const typing = (event.target as HTMLElement).closest(
    'input, textarea, select, [contenteditable]',
  );
  return event.key === '/' && !typing && !event.ctrlKey && !event.metaKey && !event.altKey;
}
