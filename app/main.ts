import { DEMO_DATABASE } from './environment/database-names';
import { databaseName } from './environment/which-shelf';
import { fetchParts } from './start/parts';
import { FIRST_PLACE, PLACES } from './start/places';
import { trustOwnAddresses } from './start/trusted';
import { nextTask } from './common/idle';
import { beginIndex } from './knowledge/index/spawn-index';

trustOwnAddresses();
const asked = location.pathname.split('/')[1] || FIRST_PLACE;
// The shelf is read, and the demo filled, beside the making of the page.
if (asked === 'shelf' || databaseName() === DEMO_DATABASE) beginIndex(databaseName());

/** All is fetched at once, and each part is run in a task of its own: none holds the page up for long. */
async function begin(): Promise<void> {
  const framework = import('./start/framework');
  const shell = import('./start/boot');
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
  if (arriving) arriving.textContent = 'Loop Shelf could not be loaded. Check your connection, then reload.';
});
