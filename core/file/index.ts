export * from './ids';
export * from './schema';
export * from './defaults';
export * from './select';
export * from './document';
export * from './bounds';
export * from './changes';
export * from './merge';
export { systemFrom1, systemFrom2 } from './migrate';
