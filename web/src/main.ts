import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app/app.config';
import { speakAsBefore } from './app/data/tongue';
import { RootComponent } from './app/shell/root.component';

speakAsBefore();

// Most visits open on the Bench: its part is fetched while the rest starts.
if (location.pathname === '/') void import('./app/bench/bench.component').catch(() => undefined);

bootstrapApplication(RootComponent, appConfig).catch((error: unknown) => console.error(error));
