export * from './catalogue';
