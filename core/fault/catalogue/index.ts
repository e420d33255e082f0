import type { Fault } from './fault';
import { FILTER_FAULTS } from './filters';
import { FLOW_FAULTS } from './flow';
import { LOOP_FAULTS } from './loop';
import { MEMBRANE_FAULTS } from './membrane';
import { METER_FAULTS } from './meters';
import { POLISHING_FAULTS } from './polishing';
import { RESIN_FAULTS } from './resin';
import { SOFTENER_FAULTS } from './softener';
import { SUPPLY_FAULTS } from './supply';
import { WATERMAKER_FAULTS } from './watermaker';

/** Nothing is wrong that meters can see: a cause like any other. */
export const HEALTHY: Fault = {
  id: 'healthy',
  weight: 20,
  words: {
    name: 'Nothing is wrong that meters can see',
    sign: 'Everything reads as this system should today.',
    remedy: 'Nothing to be done; keep the reading.',
    notTo: 'What no meter sees: that needs a kit or a look.',
  },
  cost: { minutes: 0, parts: [] },
  on: () => ({}),
};

/** Every cause that is known, healthy first. */
export const CATALOGUE: readonly Fault[] = [
  HEALTHY,
  ...SUPPLY_FAULTS,
  ...FILTER_FAULTS,
  ...MEMBRANE_FAULTS,
  ...FLOW_FAULTS,
  ...RESIN_FAULTS,
  ...METER_FAULTS,
  ...SOFTENER_FAULTS,
  ...LOOP_FAULTS,
  ...WATERMAKER_FAULTS,
  ...POLISHING_FAULTS,
];
const BY_ID: ReadonlyMap<string, Fault> = new Map(CATALOGUE.map((fault) => [fault.id, fault]));

/** A cause by its id; null where it is not of the catalogue. */
export const faultOf = (id: string): Fault | null => BY_ID.get(id) ?? null;
