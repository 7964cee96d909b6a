/* npm start: install, build, serve the household's own data file; `-- --network` opens it to the house. */
import { build, install, run } from './steps.mjs';

install();
build();
run('node', ['server/dist/main.js', ...process.argv.slice(2)]);
