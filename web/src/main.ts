import { bootstrapApplication } from '@angular/platform-browser';
import { App } from './app/app';
import { appConfig } from './app/app.config';

bootstrapApplication(App, appConfig).catch((error: unknown) => {
  document.body.textContent =
    'Stylet could not start. Reload the page; if that does not help, use a current browser.';
  console.error(error);
});
