/* npm run backup -- FILE and npm run restore -- FILE [--merge]: install, build, and do it. */
import { build, install, run } from './steps.mjs';

const [what, ...args] = process.argv.slice(2);
install();
build();
run('node', [`server/dist/${what}.js`, ...args]);
