/* npm run demo: install, build, make the demo household, serve it. */
import { build, install, root, run } from './steps.mjs';
import { join } from 'node:path';

install();
build();
const file = process.env.NEEDLECASE_DB ?? join(root, 'data/demo.sqlite');
run('node', ['server/dist/demo.js', file, ...process.argv.slice(2)]);
run('node', ['server/dist/main.js'], {
  NEEDLECASE_DB: file,
  NEEDLECASE_POST_OFFICE: process.env.NEEDLECASE_POST_OFFICE ?? 'on',
  NEEDLECASE_PLUG: process.env.NEEDLECASE_PLUG ?? 'on',
});
