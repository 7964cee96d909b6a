import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const file = join(import.meta.dirname, 'faults.ts');

/** Runs a program that has the handlers, in a process of its own. */
const run = (code: string) =>
  spawnSync(
    process.execPath,
    [
      '--import',
      'tsx',
      '--input-type=module',
      '--eval',
      `import { endOnFaults } from ${JSON.stringify(file)};
       endOnFaults({ fatal: (error) => console.log('logged', error.message) });
       setTimeout(() => console.log('went on'), 3000);
       ${code}`,
    ],
    { encoding: 'utf8' },
  );

describe('a fault that nobody caught', () => {
  it.each([
    ['thrown', "setTimeout(() => { throw new Error('a thread broke'); });"],
    ['rejected', "void Promise.reject(new Error('a thread broke'));"],
  ])('%s: is logged, told in a sentence, and ends the process', (_how, code) => {
    const { status, stdout, stderr } = run(code);
    expect(status).toBe(1);
    expect(stdout).toBe('logged a thread broke\n');
    expect(stderr.trim()).toBe(
      'Needlecase ends, because something went wrong that it did not expect: a thread broke',
    );
  });
});
