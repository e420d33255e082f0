import { kindOf, type Stage, type StageOf, stageBed, type TrainUse } from '../stage';
import type { System } from '../file';
import { amountOf, firstPast, ionicLoad, lifeKey, RESIN_ROWS, type Bed, type BedLife, type ColumnRun, type IonId } from '../exchange';
import { goalLimits } from '../goal';
import type { Water } from '../water';
import type { SolvedTrain } from '../train';
import { words } from '../quantity';

/** What a column is run with: the beds up to a stage, the water that meets the first, and its flow. */
export interface ResinChain {
  readonly beds: readonly Bed[];
  readonly water: Water;
  readonly flowLPerH: number;
}

/**
 * The row of resin stages that ends at a stage, as the column takes it; null where it is no resin or nothing flows.
 *
 * @param stages as solved
 */
export function resinChain(stages: readonly Stage[], solved: SolvedTrain, stageId: string): ResinChain | null {
  const at = stages.findIndex((stage) => stage.id === stageId);
  if (stages[at]?.kind !== 'resin') return null;
  let first = at;
  for (let i = at - 1; i >= 0; i--) {
    if (stages[i]!.kind === 'resin') first = i;
    else if (kindOf(stages[i]!).touches(stages[i]!) !== 'nothing') break;
  }
  const station = solved.stations[first];
  if (!station || !(station.flowLPerH > 0)) return null;
  const beds = stages.slice(first, at + 1).filter((stage): stage is StageOf<'resin'> => stage.kind === 'resin');
  return { beds: beds.map(stageBed), water: station.water, flowLPerH: station.flowLPerH };
}

/** A row of resin that is used so far that the cells of the column should speak for it, and where it stands. */
export interface LifeAsked {
  readonly stageId: string;
  readonly key: string;
  readonly chain: ResinChain;
  readonly litres: number;
}

/** Share of its side from which a bed's fronts are near enough to matter. */
const FRONTS_MATTER = 0.4;

/**
 * The rows of resin whose life the train should read from the column: those that stand near their fronts. Litres are by
 * the equivalents the log believes were taken up, so that a lane or a better load moves them, not the shapes.
 */
export function livesAsked(stages: readonly Stage[], solved: SolvedTrain, use: TrainUse): LifeAsked[] {
  return solved.resins.flatMap(({ stageId, usedShare }): LifeAsked[] => {
    const own = use[stageId];
    const chain = own && usedShare >= FRONTS_MATTER ? resinChain(stages, solved, stageId) : null;
    const stage = stages.find(({ id }) => id === stageId);
    // A bed of one side alone is no row of the column.
    if (
      !own ||
      !chain ||
      stage?.kind !== 'resin' ||
      !(RESIN_ROWS[stage.resinClass].cationShare > 0 && RESIN_ROWS[stage.resinClass].cationShare < 1)
    )
      return [];
    const load = ionicLoad(chain.water);
    const byEq = own.anionEq !== undefined && load.anionMeqL > 0 ? (1000 * own.anionEq) / load.anionMeqL : undefined;
    const litres = byEq ?? own.passedL;
    return litres === undefined ? [] : [{ stageId, key: lifeKey(chain), chain, litres }];
  });
}

/** What the log says of the stages, with the lives that are known of them. */
export const withLives = (use: TrainUse, asked: readonly LifeAsked[], known: ReadonlyMap<string, BedLife>): TrainUse => ({
  ...use,
  ...Object.fromEntries(
    asked.flatMap(({ stageId, key, litres }) => {
      const of = known.get(key);
      return of && litres <= of.litres.at(-1)! ? [[stageId, { ...use[stageId], life: { of, litres } }] as const] : [];
    }),
  ),
});

/** A moment in the life of a bed that somebody should know of. */
export interface ColumnMark {
  readonly id: 'meter' | 'crew' | 'ammonia' | 'silica' | 'colour';
  readonly litres: number;
  readonly label: string;
}

/** Unspent colour at which a cartridge is changed (common practice: half an inch). */
const COLOUR_LEFT_MM = 10;

/** Depth of a bed that still holds less than half of what it can, on the side its dye goes by, mm. */
export function unspentMm(run: ColumnRun, depthMm: number, moment: number): number {
  const shares = run.moments[moment]?.[run.limiting];
  if (!shares) return depthMm;
  const n = run.limiting === 'cation' ? run.cations.length : run.anions.length;
  const cells = run.cells[run.limiting];
  let spent = 0;
  for (let c = 0; c < cells; c++) {
    let held = 0;
    for (let i = 0; i < n; i++) held += shares[c * n + i]!;
    if (held >= 0.5) spent += 1;
  }
  return cells > 0 ? depthMm * (1 - spent / cells) : depthMm;
}

/** mg/L of a solute in what leaves the bed, over its life. */
export const outMgL = (run: ColumnRun, ion: IonId): readonly number[] => (run.outMeqL[ion] ?? []).map((meqL) => amountOf(ion, meqL));

/**
 * When the meter first shows it, when what no meter sees passes the goal, when the colour line says change: those that
 * come within the run, earliest first.
 */
export function columnMarks(system: System, stage: StageOf<'resin'>, run: ColumnRun): ColumnMark[] {
  const say = words(system.units);
  const marks: ColumnMark[] = [];
  const add = (id: ColumnMark['id'], litres: number | null, label: string): void => {
    if (litres !== null) marks.push({ id, litres, label });
  };
  const { ppmFactor } = system.units;
  // A meter that counts by whole ppm shows 1 from a half on.
  add('meter', firstPast(run.litres, run.ec25UScm, 0.5 / ppmFactor), 'meter first shows 1 ppm');
  const crew = system.goal.crewLimitPpm;
  if (crew !== null && crew >= 1) add('crew', firstPast(run.litres, run.ec25UScm, (crew + 0.5) / ppmFactor), `past the crew’s ${crew} ppm`);
  const limits = goalLimits(system.goal, ppmFactor);
  const high = (quantity: string): number | null => limits.find((limit) => limit.quantity === quantity)?.high ?? null;
  const silica = high('silicaMgL');
  if (silica !== null) add('silica', firstPast(run.litres, outMgL(run, 'SiO2'), silica), `silica past ${say.mgL(silica)}`);
  const ammonia = high('ammoniaMgL');
  if (ammonia !== null) add('ammonia', firstPast(run.litres, outMgL(run, 'NH4N'), ammonia), `ammonium past ${say.mgL(ammonia)}`);
  if (RESIN_ROWS[stage.resinClass].colours) {
    const at = run.moments.findIndex((_, k) => unspentMm(run, stage.depthMm, k) <= COLOUR_LEFT_MM);
    add('colour', at < 0 ? null : run.moments[at]!.litres, 'a centimetre of colour is left: change');
  }
  return marks.sort((a, b) => a.litres - b.litres);
}
