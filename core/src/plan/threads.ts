/** What of a visit is drawn. */
export interface Drawn {
  tasks: readonly { line: 'water' | 'air'; minutes: number; safety: boolean; slips: boolean }[];
  minutes: number;
}

/** Minutes at work of a visit on each thread. Set-ups go along with the line that has more of it. */
export function threadsOf({ tasks, minutes }: Drawn): { water: number; air: number } {
  const of = (line: 'water' | 'air') =>
    tasks.filter((one) => one.line === line).reduce((sum, one) => sum + one.minutes, 0);
  const [water, air] = [of('water'), of('air')];
  const rest = Math.max(0, minutes - water - air);
  return water >= air
    ? { water: water + (water ? rest : 0), air: air + (water ? 0 : rest) }
    : { water, air: air + rest };
}

/** Whether something of a visit keeps people safe. */
export const isSafety = ({ tasks }: Pick<Drawn, 'tasks'>): boolean =>
  tasks.some(({ safety }) => safety);

/** Whether all of a visit may come later. */
export const maySlip = ({ tasks }: Pick<Drawn, 'tasks'>): boolean =>
  tasks.length > 0 && tasks.every(({ slips }) => slips);
