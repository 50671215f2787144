import Dexie from 'dexie';

/**
 * Tells which parts of the databases changed, in this tab, another one or a worker, as Dexie names them: a set of keys
 * for each `idb://database/table/index`. Gives back what ends it.
 */
export function followChanges(heard: (parts: object) => void): () => void {
  Dexie.on('storagemutated', heard);
  return () => Dexie.on('storagemutated').unsubscribe(heard);
}
