/** A backup that cannot be made, or cannot be put back, in one sentence that can be shown. */
export class BackupProblem extends Error {}
