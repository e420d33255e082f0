import { CATALOGUE } from '../fault/catalogue';
import { hypothesesOf } from '../fault/catalogue/fault';
import type { FaultReading } from '../fault/diagnose';
import { buildNodes, type NodeTable } from '../fault/nodes';
import { WITH_BASELINE, type SharedSd } from '../fault/shared';
import { BAR_PER_PSI } from '../quantity';
import { referenceRig } from './referenceRig';

/** The causes the method is checked with (chapter on faults, 2.1), in the chapter's order; one element has no old restrictor. */
const IDS = [
  'healthy',
  'lineLow',
  'prefilter',
  'fouled',
  'scaled',
  'oxidised',
  'sealLeak',
  'restrictorTight',
  'restrictorWide',
  'oldRestrictor',
  'backPressure',
  'coldWater',
  'feedStrong',
  'dryMembrane',
  'swapped',
  'creep',
  'resinSpent',
  'resinChannel',
  'resinPoisoned',
  'co2Early',
  'acidBand',
  'silicaBand',
  'meterFault',
  'carbonSpent',
  'ammonia',
  'shutoff',
] as const;

/** L/h in a mL/min. */
export const ML_PER_MIN = 0.06;

/** The node table of the reference set. */
export function referenceTable(elements: 1 | 2, shared: SharedSd = WITH_BASELINE): NodeTable {
  const rig = referenceRig(elements);
  const faults = IDS.filter((id) => elements === 2 || id !== 'oldRestrictor').map((id) => CATALOGUE.find((fault) => fault.id === id)!);
  const table = buildNodes(rig, hypothesesOf(faults, rig), shared);
  if (!table.ok) throw new Error(table.error.message);
  return table.value;
}

/** First readings as they are written down: tap, membrane, product ppm; psi; °C; product and waste mL/min. */
export const firstLook = (
  tap: number,
  membrane: number,
  product: number,
  psi: number,
  temperatureC: number,
  productMl: number,
  wasteMl: number,
): FaultReading[] => [
  { kind: 'tap', value: tap },
  { kind: 'membrane', value: membrane },
  { kind: 'product', value: product },
  { kind: 'line', value: psi * BAR_PER_PSI },
  { kind: 'temperature', value: temperatureC },
  { kind: 'productFlow', value: productMl * ML_PER_MIN },
  { kind: 'wasteFlow', value: wasteMl * ML_PER_MIN },
];

/** Kinds and checks of the reference set. */
export const REFERENCE_CHECKS = {
  kinds: [
    'tap',
    'membrane',
    'later',
    'clean',
    'product',
    'midResin',
    'line',
    'inlet',
    'temperature',
    'productFlow',
    'wasteFlow',
    'openFlow',
    'penMembrane',
    'penTap',
    'ratioStrength',
    'ratioFlow',
    'pH',
  ],
  checks: ['chlorineStrip', 'silicaKit', 'ammoniaKit', 'drainWhenFull', 'lookConnections', 'inspectSeals', 'askFirstMinute'],
} as const;
