import { describe, expect, it } from 'vitest';
import { intervalScore, wilson } from './report';

/** How bands are checked: check values L31 and L32 of the science of logs. */
describe('coverage', () => {
  it('L31: Wilson’s interval at 90 %', () => {
    const [low, high] = wilson(88, 110);
    expect([low, high].map((one) => Number(one.toFixed(4)))).toEqual([0.7304, 0.8552]);
    expect(wilson(12, 15).map((one) => Number(one.toFixed(4)))).toEqual([0.5912, 0.9171]);
  });
  it('L32: the interval score of 20 to 60 at 80 %', () => {
    expect([intervalScore(20, 60, 40), intervalScore(20, 60, 70)]).toEqual([40, 140]);
  });
});
