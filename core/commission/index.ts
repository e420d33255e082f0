export * from './ratio';
export * from './trim';
export * from './runbook';
