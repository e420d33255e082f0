import { boreForRatio, lengthForRatio, speciesOfWater } from '../membrane';
import { fail, ok, type Outcome } from '../quantity';
import { fixedRestrictor, ratedMlPerMin, soldRestrictor, type StageOf } from '../stage';
import type { MembraneOperation } from '../train';

/**
 * The restrictor with which a unit runs at a waste : product ratio: a tube of this bore cut to length, or of those that
 * are not cut the size as sold that wastes no less.
 *
 * @returns an error naming the ratio where no length of this bore, or no size sold, gives it
 */
export function restrictorFor(at: MembraneOperation, ratio: number): Outcome<StageOf<'membrane'>['restrictor']> {
  const { restrictor } = at.stage;
  const species = speciesOfWater(at.feed);
  if (!species.ok) return species;
  const conditions = { ...at.conditions, temperatureC: at.feed.temperatureC };
  if (restrictor.form === 'tube') {
    const length = lengthForRatio(at.unit, species.value, conditions, ratio);
    return length.ok ? ok({ ...restrictor, lengthMm: Math.round(length.value * 10) / 10 }) : length;
  }
  const bore = boreForRatio(at.unit, species.value, conditions, ratio);
  const size = bore === null ? null : soldRestrictor(ratedMlPerMin({ ...restrictor, boreMm: bore }));
  return size === null
    ? fail(
        'ratio',
        ratio,
        'a ratio a restrictor as sold gives',
        `No fixed restrictor as sold gives ${ratio.toFixed(1)} : 1 here. A tube or a needle valve does.`,
      )
    : ok(fixedRestrictor(restrictor, size));
}
