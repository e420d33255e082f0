export * from './sediment';
export * from './carbon';
export * from './siltDensity';
