import { allStandings, type StageStanding } from '../life';
import { allStages, mapStages, type Measured, type System } from '../file';
import { productLPerDay } from '../goal';
import { ok, type Outcome } from '../quantity';
import { kindOf, type Stage, type TrainUse } from '../stage';
import { membraneOperation, solveTrain, tapWater, wornTrain, type MembraneOperation, type SolvedTrain } from '../train';

/** Pressure and temperature as they were read on site; null where nobody has read them yet. */
export interface Today {
  readonly linePressureBar: number | null;
  readonly temperatureC: number | null;
}

/** The train as it should run in this hour: what every step of the runbook is held against. */
export interface Expected {
  readonly solved: SolvedTrain;
  readonly standings: readonly StageStanding[];
  /** The membrane as it is fitted now, to be asked alone; null without one. */
  readonly operation: MembraneOperation | null;
  readonly linePressureBar: number;
  readonly temperatureC: number;
}

/** The step at which pressure and temperature are read, and what they are called there. */
export const LINE_STEP = { step: 'line', pressure: 'linePressureBar', temperature: 'temperatureC' } as const;

/** What was read last of the line; a step that is read again replaces what stood. */
export function todayOf(measured: readonly Measured[]): Today {
  const last = (measure: string): number | null =>
    measured.findLast((one) => one.step === LINE_STEP.step && one.measure === measure)?.value ?? null;
  return { linePressureBar: last(LINE_STEP.pressure), temperatureC: last(LINE_STEP.temperature) };
}

/** A system with new pieces where a piece of work fits them, and what the others have behind them. */
export function asWorkedOn(
  system: System,
  use: TrainUse,
  fitted: (stage: Stage) => boolean,
): { readonly system: System; readonly use: TrainUse } {
  const fresh = new Set(
    allStages(system.train)
      .filter(fitted)
      .map(({ id }) => id),
  );
  const renewed = (stage: Stage): Stage => (fresh.has(stage.id) ? kindOf(stage).renewed(stage) : stage);
  return {
    system: { ...system, train: mapStages(system.train, renewed) },
    use: Object.fromEntries(Object.entries(use).filter(([id]) => !fresh.has(id))),
  };
}

/**
 * Solves the train as it is put into service, at the pressure and temperature of the hour.
 *
 * @param today what was read on site; what was not is as it was planned
 * @param use what its stages have behind them; nothing for a new build
 */
export function expectedToday(system: System, today: Today, use: TrainUse = {}): Outcome<Expected> {
  const { source } = system;
  const train = wornTrain(system.train, source.turbidityNTU, use);
  const tap = tapWater(source, system.instruments);
  if (!tap.ok) return tap;
  const temperatureC = today.temperatureC ?? tap.value.water.temperatureC;
  const linePressureBar = today.linePressureBar ?? source.linePressureBar;
  const inlet = { ...source, linePressureBar };
  const solved = solveTrain(train, inlet, { ...tap.value.water, temperatureC }, use);
  if (!solved.ok) return solved;
  const standings = allStandings(system, { solved: solved.value, demandLPerDay: productLPerDay(system.goal), use });
  const operation = membraneOperation(train, inlet, solved.value);
  return ok({ solved: solved.value, standings, operation, linePressureBar, temperatureC });
}
