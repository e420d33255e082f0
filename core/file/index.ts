export * from './ids';
export * from './schema';
export * from './defaults';
export * from './select';
export * from './document';
export { systemFrom1, systemFrom2 } from './migrate';
