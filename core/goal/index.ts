export * from './goals';
export * from './check';
