import fc from 'fast-check';
import { expect, it } from 'vitest';
import { lastFrom } from './search';

it('finds what a walk through the list finds', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 40 }),
      fc.integer({ min: -60, max: 60 }),
      (list, value) => {
        const sorted = [...list].sort((a, b) => a - b);
        expect(lastFrom(sorted, (one) => one, value)).toBe(
          Math.max(
            0,
            sorted.findLastIndex((one) => one <= value),
          ),
        );
      },
    ),
  );
});
