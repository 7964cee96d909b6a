import program from '../package.json' with { type: 'json' };

/** The program's version. */
export const PROGRAM: string = program.version;
