export * from './ids';
export * from './schema';
export * from './document';
