import type { Branch, LoopSettings, Season } from '../file';
import type { GoalId } from '../goal';
import { newStage, type Stage, type StageKind, type StageOf } from '../stage';
import type { Character } from '../water';

/** A ready-made starting train. */
export interface TemplateRow {
  readonly label: string;
  readonly says: string;
  readonly goal: GoalId;
  readonly school?: string;
  readonly demandL: number;
  readonly demandPer: 'day' | 'week';
  readonly stages: readonly Stage[];
  /** Stage after which each probe stands; the tap probe is always there. */
  readonly probes: readonly { readonly name: string; readonly after: string }[];
  readonly drawLPerH: number;
  readonly branches?: readonly Branch[];
  readonly loop?: LoopSettings;
  /** What such a system usually stands on, where it is not a middling municipal tap. */
  readonly supply?: {
    readonly name: string;
    readonly character: Character;
    readonly readingUScm: number;
    readonly temperatureC: number;
    readonly linePressureBar: number;
    readonly chlorineMgL: number;
    readonly season: Pick<Season, 'lowestTemperatureC' | 'highestTemperatureC'>;
  };
}

/** A stage of a template, as it differs from a new one. */
export const stage = <K extends StageKind>(kind: K, id: string, changes: Partial<StageOf<K>> = {}): Stage => ({
  ...newStage(kind, id),
  ...changes,
});

/** A use taken off behind a stage. */
export const branch = (
  id: string,
  name: string,
  after: string,
  goal: GoalId,
  school: string | null,
  litresPerDay: number,
  drawLPerH: number,
  stages: readonly Stage[],
): Branch => ({ id, name, after, goal: { id: goal, school }, litresPerDay, drawLPerH, stages: [...stages] });

/** A town's water at a strength, read in ppm at factor 0.5. */
export const counterSupply = (name: string, ppm: number): NonNullable<TemplateRow['supply']> => ({
  name,
  character: ppm > 300 ? 'chalk' : 'municipal',
  readingUScm: 2 * ppm,
  temperatureC: 15,
  linePressureBar: 4,
  chlorineMgL: 0.4,
  season: { lowestTemperatureC: 8, highestTemperatureC: 20 },
});
