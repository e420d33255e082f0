import base from '../playwright.config';

/** The slower proofs: killed tabs, several tabs, old and new versions, the server gone, a phone over https. */
export default { ...base, testDir: 'reliability', testMatch: '*.proof.ts', timeout: 150_000 };
