import { DEMO_DATABASE } from './data/database-names';
import { databaseName } from './data/which-shelf';
import { fetchParts } from './shell/parts';
import { FIRST_PLACE, PLACES } from './shell/places';
import { trustOwnAddresses } from './shell/trusted';
import { nextTask } from './ui/idle';
import { beginIndex } from './workers/spawn';

trustOwnAddresses();
const asked = location.pathname.split('/')[1] || FIRST_PLACE;
// The shelf is read, and the demo filled, beside the making of the page.
if (asked === 'shelf' || databaseName() === DEMO_DATABASE) beginIndex(databaseName());

/** All is fetched at once, and each part is run in a task of its own: none holds the page up for long. */
async function begin(): Promise<void> {
  const framework = import('./shell/framework');
  const shell = import('./shell/boot');
  fetchParts(asked);
  await framework;
  const { boot } = await shell;
  await nextTask();
  // Whether the place that was asked for can be fetched is the router's to say.
  PLACES.find((p) => p.path === asked)
    ?.load()
    .catch(() => undefined);
  await boot();
}

begin().catch((e: unknown) => {
  console.error(e);
  const arriving = document.querySelector('.arriving');
  if (arriving) arriving.textContent = 'Loop Shelf could not be fetched. Is the network there? Then reload the page.';
});
