import { FLOAT_SHARES, SEDIMENT_HOLDS_G } from '../../stage';
import { PLACEHOLDER_PRICES, USUAL_TURBIDITY_NTU } from '../defaults';
import { asItWas, isData, type FileVersion } from './raw';

/** What version 2 did not ask of a stage. */
function stageFrom2(stage: unknown): unknown {
  if (!isData(stage)) return stage;
  // A factor of 1 was what nobody had entered: since then age speaks for it.
  const measured = (factor: unknown): unknown => (factor === 1 ? null : factor);
  switch (stage['kind']) {
    case 'membrane':
      return {
        ...stage,
        waterFactor: measured(stage['waterFactor']),
        saltFactor: measured(stage['saltFactor']),
        recycleKv: null,
        bypassAfter: null,
        wasteToFirstPass: false,
      };
    case 'pump':
      return isData(stage['pump']) && stage['pump']['kind'] === 'displacement'
        ? { ...stage, pump: { ...stage['pump'], energyRecovery: 0 } }
        : stage;
    case 'resin':
      return { ...stage, carriedEq: { cation: 0, anion: 0 } };
    case 'sediment':
      return { ...stage, holdsG: SEDIMENT_HOLDS_G };
    case 'tank':
      return { ...stage, prechargeBar: null, ...FLOAT_SHARES };
    default:
      return stage;
  }
}

/** A system of version 2 as one of version 3. */
function systemFrom2(system: unknown): unknown {
  if (!isData(system)) return system;
  const { source, train } = system;
  return {
    ...system,
    source: isData(source) ? { ...source, turbidityNTU: USUAL_TURBIDITY_NTU, silt: null } : source,
    train:
      isData(train) && Array.isArray(train['stages'])
        ? { ...train, stages: train['stages'].map(stageFrom2), branches: [], loop: null }
        : train,
    prices: PLACEHOLDER_PRICES,
    cartridges: [],
  };
}

/** Version 3: uses with stages of their own, a loop, prices, cartridges that were thrown away, wear by the log. */
export const version3: FileVersion = { version: 3, system: systemFrom2, reading: asItWas };
