/** A whole address is matched, the server's name and what is asked of it, too. */
const SERVER = '^\\w+://[^/]+';
const ASKED = '(?:\\?.*)?$';
/** Nothing whose name ends as a file's does. */
const NO_FILE = '(?![^?]*\\.[a-z]+(?:\\?|$))';

/**
 * What the service worker keeps of the API, more narrowly than its configuration can say: an address is matched from end
 * to end, and files (what has a dot in its name, and has not a group of its own) are never given out of what was kept.
 * After some seconds an old backup would be taken for the new one, and a phone would be full of them.
 *
 * @param {{ name: string, patterns: string[] }[]} groups as the configuration makes them
 */
export const keptAnswers = (groups) =>
  groups.map((group) => ({
    ...group,
    patterns: group.patterns.map((pattern) =>
      group.name === 'read-last' ? `${SERVER}${NO_FILE}${pattern}$` : `${SERVER}${pattern}${ASKED}`,
    ),
  }));
