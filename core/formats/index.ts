export * from './shelf-file';
