import { InjectionToken } from '@angular/core';
import type { Amount } from '@needlecase/core';

/** What was taken already, by the instrument's fields: it stands in them at first, and nothing of it is kept. */
export const TAKEN = new InjectionToken<() => Readonly<Record<string, Amount>>>('taken figures');
