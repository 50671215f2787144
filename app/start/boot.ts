import { nextTask } from '../common/idle';
import { appConfig } from './app.config';
import { bootstrapApplication, Router } from './framework';
import { ShellComponent } from './shell.component';

/** Makes the shell, and then, in a task of its own, the place that the address names. */
export async function boot(): Promise<void> {
  const app = await bootstrapApplication(ShellComponent, appConfig);
  await nextTask();
  app.injector.get(Router).initialNavigation();
}
