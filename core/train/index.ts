export * from './solve';
export * from './feed';
export * from './templates';
export * from './words';
export * from './scaling';
export * from './facts';
export * from './findings';
export * from './report';
