export * from './sediment';
export * from './carbon';
