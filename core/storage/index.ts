export * from './bladder';
export * from './creep';
