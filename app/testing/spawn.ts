import { BackingEngine } from '../sound/backing.engine';
import { ExchangeEngine } from '../exchange/exchange.engine';
import { ListeningEngine } from '../places/listen/listening.engine';
import { FilesEngine } from '../storage/files/files-engine';
import { IndexEngine, type Tell } from '../knowledge/index/index-engine';

// Stands in for the `spawn-….ts` of the rooms in unit tests: whatever the test has put in the place of Worker.
export const spawnTicker = (): Worker => new Worker('ticker');
export const spawnVariants = (): Worker => new Worker('variants');
export const spawnCompose = (): Worker => new Worker('compose');
export const spawnSticking = (): Worker => new Worker('sticking');
/** The index and the files of a shelf work in the test itself. */
export const spawnIndex = (name: string, tell: Tell): IndexEngine => new IndexEngine(name, tell, 0);
export const spawnFiles = (name: string) => {
  const api = new FilesEngine(name);
  return { api, end: () => api.end() };
};
/** Files of other programs are read and written in the test itself. */
export const spawnExchange = () => ({ api: new ExchangeEngine(), end: () => undefined });
/** A recording is listened to in the test itself. */
export const spawnListening = () => ({ api: new ListeningEngine(), end: () => undefined });
/** A record is made even in the test itself. */
export const spawnBacking = () => ({
  api: new BackingEngine(),
  broken: new Promise<never>(() => undefined),
  end: () => undefined,
});
