export * from './csv';
export * from './shelf-file';
