import { asItWas, isData, type FileVersion } from './raw';

/** What version 3 started with where version 2 had not asked; a later default changes nothing here. */
const PRICES = {
  currency: 'EUR',
  waterPerM3: 2,
  sewerPerM3: 2,
  powerPerKWh: 0.25,
  resinPerL: 6,
  membranePerYear: 400,
  boosterPump: 90,
  element: 45,
  warmingCoil: 40,
  tankPerL: 0.6,
};

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
      return { ...stage, holdsG: 10 };
    case 'tank':
      return { ...stage, prechargeBar: null, startShare: 0.6, stopShare: 0.9 };
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
    source: isData(source) ? { ...source, turbidityNTU: 0.5, silt: null } : source,
    train:
      isData(train) && Array.isArray(train['stages'])
        ? { ...train, stages: train['stages'].map(stageFrom2), branches: [], loop: null }
        : train,
    prices: PRICES,
    cartridges: [],
  };
}

/** Version 3: uses with stages of their own, a loop, prices, cartridges that were thrown away, wear by the log. */
export const version3: FileVersion = { version: 3, system: systemFrom2, reading: asItWas };
