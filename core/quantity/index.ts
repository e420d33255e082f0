export * from './outcome';
export * from './units';
export * from './number';
export * from './parse';
export * from './format';
