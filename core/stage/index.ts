import { z } from 'zod';
import { calcite } from './calcite';
import { carbon } from './carbon';
import { decarboniser } from './decarboniser';
import { degasser } from './degasser';
import { dosingPump } from './dosingPump';
import { electrodeionizer } from './electrodeionizer';
import { finalFilter } from './finalFilter';
import { inhibitor } from './inhibitor';
import type { StageKindSpec } from './kind';
import { membrane } from './membrane';
import { pump } from './pump';
import { resin } from './resin';
import { sediment } from './sediment';
import { softener } from './softener';
import { spinDown } from './spinDown';
import { tank } from './tank';
import { tubing } from './tubing';
import { twoBed } from './twoBed';
import { uv } from './uv';

/** Every kind of stage there is, in the order it is offered. A new kind is one file beside this one, and one entry here. */
const KINDS = [
  sediment,
  spinDown,
  carbon,
  pump,
  membrane,
  resin,
  softener,
  decarboniser,
  inhibitor,
  calcite,
  uv,
  tubing,
  tank,
  finalFilter,
  degasser,
  electrodeionizer,
  twoBed,
  dosingPump,
] as const;

type Schemas<T extends readonly { readonly schema: z.ZodObject }[]> = { [I in keyof T]: T[I]['schema'] };
const schemas = KINDS.map(({ schema }) => schema) as unknown as Schemas<typeof KINDS>;

/** A stage of any kind, as it is kept. */
export const stageSchema = z.discriminatedUnion('kind', schemas);
export type Stage = z.infer<typeof stageSchema>;
export type StageKind = Stage['kind'];
export type StageOf<K extends StageKind> = Extract<Stage, { kind: K }>;

/** The kinds by name, in the order they are offered. */
export const STAGE_KINDS: readonly StageKind[] = KINDS.map(({ kind }) => kind);

const BY_KIND = new Map<StageKind, unknown>(KINDS.map((one) => [one.kind, one]));

/** All that is known of a stage's kind: here, and only here, a stage meets the spec that its own schema typed. */
export const kindOf = <S extends Stage>({ kind }: S): StageKindSpec<S> => BY_KIND.get(kind) as StageKindSpec<S>;

/** Whether a stage takes all salt out without being a membrane: a stack, a pair of beds. */
export const deionizes = (stage: Stage): boolean => stage.kind !== 'membrane' && kindOf(stage).touches(stage) === 'salt';

/** All that is known of a kind by its name. */
export const stageKind = <K extends StageKind>(kind: K): StageKindSpec<StageOf<K>> => BY_KIND.get(kind) as StageKindSpec<StageOf<K>>;

/** A new stage of a kind with its starting values. */
export const newStage = <K extends StageKind>(kind: K, id: string): StageOf<K> =>
  ({ ...stageKind(kind).defaults, id }) as unknown as StageOf<K>;

/** What can be added: every kind, and its variants. */
export const OFFERED: readonly {
  readonly kind: StageKind;
  readonly variant: string | null;
  readonly label: string;
  readonly says: string;
}[] = STAGE_KINDS.flatMap((kind) => {
  const { label, says, variants = [] } = stageKind(kind);
  return [{ kind, variant: null, label, says }, ...variants.map((one) => ({ kind, variant: one.id, label: one.label, says: one.says }))];
});

/** Stages with one more of a kind, or of a variant of it, where such a stage belongs. */
export function withNew(stages: readonly Stage[], stage: Stage, variant: string | null): Stage[] {
  const found = kindOf(stage).variants?.find(({ id }) => id === variant);
  if (!found) return placed(stages, stage);
  const changed = { ...stage, ...found.changes } as Stage;
  return found.where === 'first' ? [changed, ...stages] : [...stages, changed];
}

/** Stages with one more where such a stage belongs by common practice: behind all that stand before its place. */
export function placed(stages: readonly Stage[], stage: Stage): Stage[] {
  const at = stages.findIndex((one) => kindOf(one).place > kindOf(stage).place);
  return stages.toSpliced(at < 0 ? stages.length : at, 0, stage);
}

export { BAR_PER_METRE, CARTRIDGE_CLEARANCE_MM, flushedUntil } from './cartridge';
export { boxFields, cartridgeCapacity, cartridgeLife, hardnessFor, settingShare, tableRow, type CartridgeLife } from './decarboniser';
export { dialBlend, dialLitres, type DialBlend, type DialLitres } from './dial';
export { FAULT_IDS, type FaultId } from './fault';
export type { FieldWrite, StageChoice, StageFields, StageQuantity } from './field';
export { byUrgency, raisedBy, type Finding, type FindingAction, type Severity } from './finding';
export { PART_LINES, PART_STATE, SERVICE_WORK } from './kind';
export { PIECE_PRICES, PIECES, pieceText, isElementPiece, type Piece } from './prices';
export type {
  ServiceWork,
  AnyStage,
  Around,
  ChemicalUse,
  Form,
  Known,
  Mounting,
  PartLine,
  PartPrices,
  ResinState,
  RunningUnit,
  Standing,
  StepsAround,
  Thread,
  Treated,
  Upkeep,
  WaterAt,
} from './kind';
export {
  elementName,
  elementRow,
  fixedRestrictor,
  membraneUnit,
  NO_LABEL,
  printedMlPerMin,
  ratedMlPerMin,
  soldRestrictor,
} from './membrane';
export { unitRanks } from './ranks';
export { HIGH_PRESSURE } from './pump';
export { resinFloor, stageBed, usualDepthMm } from './resin';
export { SEDIMENT_HOLDS_G } from './sediment';
export { softenerPlan } from './softener';
export {
  FLOOD,
  HEAVY,
  LOCAL_CODE,
  MAINS,
  PLACES,
  PRESERVATIVE,
  PRODUCT_OPEN,
  seen,
  step,
  UNDER_PRESSURE,
  type Act,
  type Caution,
  type Measure,
  type Place,
  type Step,
  type StepEntry,
  type StepTool,
} from './step';
export { countText, part, PART_GROUPS, type Part, type PartEntry, type PartGroup, type PartsAround } from './part';
export { FLOAT_HOLE_MM, FLOAT_SHARES, gasOf } from './tank';
export { NO_USE, type StageUse, type TrainUse } from './use';
