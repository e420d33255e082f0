import base from '../playwright.config';

/** `npm run shots`: the pictures in docs/screenshots, always of the demonstration on the same day. */
export default { ...base, testDir: '.', testMatch: 'shots.ts' };
