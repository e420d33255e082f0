export * from './goals';
export * from './check';
export * from './demand';
export * from './prepare';
