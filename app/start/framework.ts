// What everything is built on, as a part of its own: it is fetched and run before the shell.
export { bootstrapApplication } from '@angular/platform-browser';
export { Router } from '@angular/router';
