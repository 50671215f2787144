import { bootstrapApplication } from '@angular/platform-browser';
import { databaseName } from './data/database';
import { appConfig } from './shell/app.config';
import { ShellComponent } from './shell/shell.component';
import { trustOwnAddresses } from './shell/trusted';
import { beginIndex } from './workers/spawn';

trustOwnAddresses();
// The shelf is read beside the making of the page.
if (['', 'shelf'].includes(location.pathname.split('/')[1] ?? '')) beginIndex(databaseName());
// A task of its own, apart from reading the code: no task holds the first page up for long.
setTimeout(() => {
  bootstrapApplication(ShellComponent, appConfig).catch((e: unknown) => {
    console.error(e);
  });
});
