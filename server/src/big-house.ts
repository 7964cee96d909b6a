import { makeBigHouse } from './testing/big-house.js';

/* `node big-house.js FILE MACHINES ENTRIES`: a house of a stated size, to be measured. */

const [file, machines = '500', entries = '60000'] = process.argv.slice(2);
if (!file) throw new Error('Name a file to make.');
makeBigHouse(file, Number(entries), Number(machines));
