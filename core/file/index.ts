export * from './ids';
export * from './schema';
export * from './select';
export * from './document';
export { systemFrom1 } from './migrate';
