import type { FilesEngine } from './files-engine';

/** The shelf's files as the page sees them: the work is done in a worker. */
export type FilesApi = Pick<FilesEngine, 'read' | 'take' | 'undo' | 'export'>;
