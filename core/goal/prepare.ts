import type { Preparation } from './schema';
import { ok, type Outcome } from '../quantity';
import {
  dosed,
  mineralDose,
  mixWaters,
  openToAir,
  SALT_MIX_MOISTURE,
  seaSaltGPerL,
  withSeaSalt,
  type MineralDose,
  type Water,
} from '../water';

/** What is put to the product before it is used, and the water that makes. */
export interface Prepared {
  readonly water: Water;
  readonly recipe:
    | { readonly how: 'none' }
    /** g of salt mix as sold, per litre of product. */
    | { readonly how: 'salt'; readonly saltGPerL: number }
    | { readonly how: 'minerals'; readonly dose: MineralDose }
    /** Litres of tap water per litre of the mixture. */
    | { readonly how: 'blend'; readonly tapShare: number };
}

/**
 * The water as it is used: the product itself, with sea salt or minerals put back, or blended with the tap.
 *
 * @param product as the train delivers it
 * @param tap blended back untreated; chlorine in it comes along
 */
export function prepareWater(preparation: Preparation, product: Water, tap: Water): Outcome<Prepared> {
  switch (preparation.how) {
    case 'none':
      return ok({ water: product, recipe: { how: 'none' } });
    case 'salt': {
      const grams = seaSaltGPerL(preparation.salinity);
      if (!grams.ok) return grams;
      const water = withSeaSalt(product, preparation.salinity);
      return water.ok ? ok({ water: water.value, recipe: { how: 'salt', saltGPerL: grams.value * SALT_MIX_MOISTURE } }) : water;
    }
    case 'minerals': {
      const dose = mineralDose(product, preparation);
      if (!dose.ok) return dose;
      const water = openToAir(dosed(product, dose.value));
      return water.ok ? ok({ water: water.value, recipe: { how: 'minerals', dose: dose.value } }) : water;
    }
    case 'blend': {
      const water = mixWaters([
        { water: product, volumeL: 1 - preparation.tapShare },
        { water: tap, volumeL: preparation.tapShare },
      ]);
      return water.ok ? ok({ water: water.value, recipe: { how: 'blend', tapShare: preparation.tapShare } }) : water;
    }
  }
}
