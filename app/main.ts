import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './shell/app.config';
import { ShellComponent } from './shell/shell.component';

bootstrapApplication(ShellComponent, appConfig).catch((e: unknown) => {
  console.error(e);
});
