/* npm start: install, build, serve the household's own data file. */
import { build, install, run } from './steps.mjs';

install();
build();
run('node', ['server/dist/main.js']);
