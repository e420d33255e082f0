export * from './bladder';
export * from './creep';
export * from './float';
export * from './loop';
