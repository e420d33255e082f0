import type { System, TemplateId } from '../file';
import { GOAL_ROWS, type GoalId } from '../goal';
import { PPM_PER_USCM, type UnitPreference } from '../quantity';
import { SEA_USCM, type Character } from '../water';
import { systemFromTemplate, type NewSystem } from './start';

/** Conductivity up to which resin alone serves a window cleaner (common practice: about 60 ppm), µS/cm. */
const RESIN_ALONE_USCM = 120;
/** Tap led past a breeder's membrane for a community of fish: half, on a usual water (common practice). */
const COMMUNITY_SHARE = 0.5;
/** What a tank of the sea is mixed to, g/kg. */
const REEF_SALINITY = 35;

/**
 * The templates that may fit what the water is for and what comes in, the plainest first; `fittingSystem` of the advice
 * room solves each where there are several.
 *
 * @param ec25UScm conductivity of the tap; null where nobody measured it
 */
export function fittingTemplates(goal: GoalId, ec25UScm: number | null): readonly [TemplateId, ...TemplateId[]] {
  if ((ec25UScm ?? 0) >= SEA_USCM) return ['watermaker'];
  switch (goal) {
    case 'marineMakeUp':
    case 'reefTank':
    case 'custom':
      return ['marineHousehold'];
    case 'softWaterBreeding':
    case 'freshwaterCommunity':
    case 'drinking':
      return ['breeder'];
    case 'windowCleaning':
      return [ec25UScm !== null && ec25UScm <= RESIN_ALONE_USCM ? 'resinVessel' : 'vanTank'];
    case 'laboratory':
      return ['skid'];
    case 'espresso':
      return ['espressoBar'];
    case 'brewWater':
    case 'steamOven':
    case 'ice':
      return ['counterSoft', 'counterHard'];
    case 'watermaker':
      return ['watermaker'];
  }
}

/** What a first visit asks. */
export interface Answers {
  readonly goal: GoalId;
  /** What a meter shows at the tap, in ppm of factor 0.5 or µS/cm; null where nobody measured it. */
  readonly reading: { readonly shown: number; readonly in: 'ppm' | 'µS/cm' } | null;
  /** The units of the person asked; the strength is told as the meter was read. */
  readonly units: UnitPreference;
  /** The kind of supply, where there is no reading. */
  readonly character: Character;
}

/** The templates that may fit two answers, the plainest first. */
export function templatesFor({ goal, reading, character }: Answers): readonly [TemplateId, ...TemplateId[]] {
  if (reading === null) return fittingTemplates(goal, character === 'seawater' ? SEA_USCM : null);
  return fittingTemplates(goal, reading.in === 'ppm' ? reading.shown / PPM_PER_USCM : reading.shown);
}

/** A system from two answers by a template: on the tap as it was read, or on a usual water of its kind. */
export function systemFromAnswers(
  { goal, reading, character, units }: Answers,
  template: TemplateId,
  start: Omit<NewSystem, 'template' | 'name'>,
): System {
  const system = systemFromTemplate({
    ...start,
    name: GOAL_ROWS[goal].label,
    template,
    units: reading ? { ...units, strength: reading.in } : units,
  });
  const salty = system.source.samples[0]!.character === 'seawater';
  const own = system.goal.id === goal;
  return {
    ...system,
    instruments: system.instruments.map((instrument) => ({
      ...instrument,
      scale: reading?.in === 'ppm' ? { kind: 'factor', factor: PPM_PER_USCM } : { kind: 'conductivity' },
    })),
    source: {
      ...system.source,
      assumed: system.source.assumed.filter((mark) => mark !== 'reading'),
      samples: system.source.samples.map((sample) => ({
        ...sample,
        character: reading === null ? character : salty ? sample.character : USUAL_CHARACTER,
        way: reading === null ? ('usual' as const) : sample.way,
        reading: reading?.shown ?? null,
      })),
    },
    goal: {
      ...system.goal,
      id: goal,
      school: own ? system.goal.school : null,
      crewLimitPpm: goal === 'windowCleaning' ? 0 : null,
      prepare: goal === 'reefTank' ? { how: 'salt', salinity: REEF_SALINITY } : system.goal.prepare,
    },
    train: {
      ...system.train,
      stages: system.train.stages.map((stage) =>
        stage.kind === 'membrane' && goal === 'freshwaterCommunity' ? { ...stage, bypassShare: COMMUNITY_SHARE } : stage,
      ),
    },
  };
}

/** What a tap is taken for until it is looked at. */
const USUAL_CHARACTER: Character = 'municipal';
