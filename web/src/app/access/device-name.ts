/** What a device may be called in the list, by what its browser says of itself; the person can change it. */
export function deviceName(agent: string): string {
  if (/\bTablet\b|iPad/i.test(agent)) return 'My tablet';
  return /\bMobile\b|Android|iPhone/i.test(agent) ? 'My phone' : 'My computer';
}
