export * from './resins';
export * from './load';
export * from './film';
export * from './throughput';
export * from './tracking';
