import { expose } from 'comlink';
import { FilesEngine } from './files-engine';

let engine: FilesEngine | null = null;

const own = (): FilesEngine => {
  if (!engine) throw new Error('the shelf is not open');
  return engine;
};

expose({
  open: (name: string) => void (engine = new FilesEngine(name)),
  read: (...args: Parameters<FilesEngine['read']>) => own().read(...args),
  take: (...args: Parameters<FilesEngine['take']>) => own().take(...args),
  undo: () => own().undo(),
  export: (...args: Parameters<FilesEngine['export']>) => own().export(...args),
  end: () => own().end(),
});
