export * from './root';
export * from './normal';
export * from './linear';
