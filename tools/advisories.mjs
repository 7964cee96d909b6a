/*
 * Asks the registry whether anything that ships has a known weakness, by the lock file. Where the registry does not
 * answer such questions it says so, and stops nothing.
 */
import { spawnSync } from 'node:child_process';
import { root } from './steps.mjs';

const LONGEST_MS = 40_000;
const WORST = ['high', 'critical'];

/**
 * What a report says of what ships, as `npm audit --json` writes it (version 2 of its reports).
 * @returns a line for each weakness that is to be mended; nothing where the registry was not asked
 */
export function weaknessesIn(report) {
  if (report?.auditReportVersion !== 2) return undefined;
  return Object.values(report.vulnerabilities)
    .filter(({ severity }) => WORST.includes(severity))
    .map(({ name, severity, range, via }) => {
      const why = via.map((one) => (typeof one === 'string' ? `by ${one}` : one.title)).join('; ');
      return `${name} ${range}: ${severity}, ${why}`;
    });
}

function asked() {
  const { stdout } = spawnSync('npm', ['audit', '--json', '--omit=dev', '--fetch-retries=0'], {
    cwd: root,
    encoding: 'utf8',
    timeout: LONGEST_MS,
  });
  try {
    return JSON.parse(stdout);
  } catch {
    return undefined;
  }
}

if (process.argv[1] === new URL(import.meta.url).pathname) {
  const weaknesses = weaknessesIn(asked());
  if (!weaknesses) console.log('The registry told nothing of weaknesses: not looked at.');
  else if (weaknesses.length) console.error(weaknesses.join('\n'));
  else console.log('Nothing that ships has a known weakness that is high or critical.');
  process.exit(weaknesses?.length ? 1 : 0);
}
