import { bootstrapApplication } from '@angular/platform-browser';
import { App } from './app';
import { appConfig } from './app.config';

// In a task of its own: reading the program and beginning it are long enough each.
setTimeout(() => {
  bootstrapApplication(App, appConfig).catch((error: unknown) => console.error(error));
});
