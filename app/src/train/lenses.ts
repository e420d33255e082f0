import { allStages, type System } from '@yes-clear/core/file';
import type { Stage } from '@yes-clear/core/stage';
import type { Lens } from './lens';
import { cartridgeLens } from './panels/cartridge/lens';
import { costsLens } from './panels/costs/lens';
import { ledgerLens } from './panels/ledger/lens';
import { membraneLens } from './panels/membrane/lens';
import { pressureLens } from './panels/pressure/lens';
import { probesLens } from './panels/probes/lens';
import { resinLens } from './panels/resin/lens';
import { seasonsLens } from './panels/seasons/lens';
import { tankLens } from './panels/tank/lens';
import { usesLens } from './panels/uses/lens';
import { yearLens } from './panels/year/lens';

/** Every lens of the workbench, in the order of its tabs; each stands in a folder of its own. */
export const LENSES: readonly Lens[] = [
  ledgerLens,
  pressureLens,
  membraneLens,
  resinLens,
  cartridgeLens,
  tankLens,
  usesLens,
  probesLens,
  seasonsLens,
  costsLens,
  yearLens,
];

/** The lenses a train has. */
export const lensesOf = (system: System): readonly Lens[] => LENSES.filter(({ shown }) => shown(system));

/** The lens that opens when a stage is chosen: that of its kind, that of the uses for a stage of a use; null where it has none. */
export function lensOf(system: System, stageId: string): Lens | null {
  const lenses = lensesOf(system);
  const stage = allStages(system.train).find(({ id }) => id === stageId);
  const own = lenses.find(({ kind }) => kind !== null && kind === stage?.kind);
  const inUse = system.train.branches.some(({ id, stages }) => id === stageId || stages.some((one) => one.id === stageId));
  return own ?? (inUse ? (lenses.find(({ id }) => id === usesLens.id) ?? null) : null);
}

/** The stage a lens looks at: the chosen one where it is of its kind, the first of the train otherwise. */
export function stageOf(system: System, { kind }: Lens, selected: string | null): Stage | null {
  const all = allStages(system.train).filter((stage) => stage.kind === kind);
  return all.find(({ id }) => id === selected) ?? all[0] ?? null;
}
