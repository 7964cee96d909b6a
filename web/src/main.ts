import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './app/app.config';
import { speakAsBefore } from './app/data/tongue';
import { RootComponent } from './app/shell/root.component';

speakAsBefore();

bootstrapApplication(RootComponent, appConfig).catch((error: unknown) => console.error(error));
