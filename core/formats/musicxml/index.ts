export * from './write';
export * from './read';
export { mxlOf } from './mxl';
