export * from './root';
export * from './normal';
export * from './linear';
export * from './steps';
