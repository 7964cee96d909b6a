import { afterAll } from 'vitest';
import { AS_WRITTEN } from './in-tongue.js';
import { speakAs } from './spoken.js';

/* Test files share their modules: what one spoke in, the next does not. */
afterAll(() => speakAs(AS_WRITTEN));
