export * from './cells';
export * from './recognise';
export * from './supply';
