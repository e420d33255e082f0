export * from './quickline';
export * from './series';
export * from './resin';
export * from './findings';
