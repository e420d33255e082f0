import fc from 'fast-check';

/**
 * Property tests look at the same cases every time, so that a change is judged by what it changed.
 * `FUZZ=random npm run unit` looks at new ones.
 */
if (process.env['FUZZ'] !== 'random') fc.configureGlobal({ seed: 20261123 });
