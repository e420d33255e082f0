export * from './quickline';
export * from './series';
export * from './resin';
export * from './findings';
export * from './use';
export * from './volume';
export * from './standing';
export * from './cartridges';
