import { bootstrapApplication } from '@angular/platform-browser';
import { appConfig } from './shell/app.config';
import { ShellComponent } from './shell/shell.component';
import { trustOwnAddresses } from './shell/trusted';

trustOwnAddresses();
bootstrapApplication(ShellComponent, appConfig).catch((e: unknown) => {
  console.error(e);
});
