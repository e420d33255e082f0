import {
  ASSUMABLE,
  NO_KIT,
  NO_REPORT,
  NOTHING_BUILT,
  OPEN_CHOICE,
  PLACEHOLDER_PRICES,
  USUAL_TURBIDITY_NTU,
  type ChoiceSettings,
  type Instrument,
  type Prices,
  type Probe,
  type System,
  type TemplateId,
} from '../file';
import { evenDemand, GOAL_ROWS } from '../goal';
import { isSmallElement } from '../membrane';
import { METRIC_UNITS, type UnitPreference } from '../quantity';
import { plainMeter } from '../water';
import type { TemplateRow } from './row';
import { TEMPLATE_ROWS } from './rows';

/** What a new system needs to be told. */
export interface NewSystem {
  readonly id: string;
  readonly name: string;
  readonly site: string;
  readonly template: TemplateId;
  /** The units chosen for it; metric where nobody has. */
  readonly units?: UnitPreference;
  /** Instant with zone. */
  readonly at: string;
}

/** The meter every new system starts with. */
export const FIRST_INSTRUMENT = 'meter';

/** A ppm meter as most are: factor 0.5, whole ppm, corrected by 2 %/°C. */
export function newInstrument(id: string, name: string, factor = 0.5): Instrument {
  return { id, name, resolution: 1, calibratedOn: null, carried: false, ...plainMeter({ kind: 'factor', factor }) };
}
/** Kinds of meter a probe can be read by. */
export const METER_FORMS = ['pen', 'inLine', 'cell', 'resistivity'] as const;
export type MeterForm = (typeof METER_FORMS)[number];
export const METER_FORM_ROWS: Readonly<
  Record<MeterForm, { readonly label: string; readonly make: (id: string, name: string) => Instrument }>
> = {
  pen: { label: 'Pen, ppm', make: (id, name) => ({ ...newInstrument(id, name), carried: true }) },
  inLine: { label: 'In-line meter, ppm', make: newInstrument },
  cell: {
    label: 'Conductivity cell, µS/cm',
    make: (id, name) => ({ ...newInstrument(id, name), scale: { kind: 'conductivity' }, resolution: 0.1 }),
  },
  resistivity: {
    label: 'Resistivity cell, MΩ·cm',
    make: (id, name) => ({ ...newInstrument(id, name), scale: { kind: 'resistivity' }, resolution: 0.1, compensation: 'pure' }),
  },
};

/** A middling municipal tap, µS/cm. */
const USUAL_USCM = 480;

/** A system from a template: a middling municipal tap until the water phase says otherwise. */
export function systemFromTemplate({ id, name, site, template, at, units: chosen }: NewSystem): System {
  const row = TEMPLATE_ROWS[template];
  const probe = (probeName: string, after: string): Probe => ({
    id: `probe-${after}`,
    name: probeName,
    after,
    side: 'out',
    vessel: null,
    instrumentId: FIRST_INSTRUMENT,
  });
  const units = chosen ?? METRIC_UNITS;
  // A meter shows what its keeper speaks of: whoever says ppm reads a pen, at the scale chosen. Where nobody said, it is
  // what the job is usually read by; the sea is read by conductivity.
  const speaksOfPpm = chosen ? chosen.strength === 'ppm' : !row.supply;
  const byPen = speaksOfPpm && row.supply?.character !== 'seawater';
  const readingUScm = row.supply?.readingUScm ?? USUAL_USCM;
  return {
    id,
    name,
    site,
    template,
    demo: false,
    createdAt: at,
    updatedAt: at,
    units,
    instruments: [
      byPen
        ? newInstrument(FIRST_INSTRUMENT, 'In-line meter', units.ppmFactor)
        : { ...newInstrument(FIRST_INSTRUMENT, 'Conductivity meter'), scale: { kind: 'conductivity' } },
    ],
    comparison: { referenceId: null, glasses: [] },
    source: {
      name: row.supply?.name ?? 'Mains',
      assumed: [...ASSUMABLE],
      samples: [
        {
          id: 'sample-1',
          takenOn: at.slice(0, 10),
          character: row.supply?.character ?? 'municipal',
          way: 'meter',
          temperatureC: row.supply?.temperatureC ?? 15,
          reading: readingUScm * (byPen ? units.ppmFactor : 1),
          instrumentId: FIRST_INSTRUMENT,
          kit: NO_KIT,
          report: NO_REPORT,
          chlorineMgL: row.supply?.chlorineMgL ?? 0.5,
          chloramineMgL: 0,
        },
      ],
      sampleId: 'sample-1',
      linePressureBar: row.supply?.linePressureBar ?? 4,
      regulatorBar: null,
      turbidityNTU: USUAL_TURBIDITY_NTU,
      silt: null,
      season: { lowestTemperatureC: 6, highestTemperatureC: 19, ...row.supply?.season, weakestUScm: null, strongestUScm: null },
      second: null,
    },
    goal: {
      id: row.goal,
      school: row.school ?? null,
      crewLimitPpm: row.goal === 'windowCleaning' ? 0 : null,
      ownLimits: [],
      prepare: { how: 'none' },
      demand: evenDemand(row.demandPer === 'week' ? row.demandL / 7 : row.demandL, row.demandPer),
    },
    train: {
      stages: row.stages.map((s) => ({ ...s })),
      probes: [probe('Tap', 'tap'), ...row.probes.map((p) => probe(p.name, p.after))],
      wasteTarget: 4,
      wasteWhy: 'trade',
      scaleActionIndex: null,
      drawLPerH: row.drawLPerH,
      branches: (row.branches ?? []).map((b) => ({ ...b, stages: b.stages.map((s) => ({ ...s })) })),
      loop: row.loop ?? null,
      gauge: row.stages.some(({ kind }) => kind === 'pump') ? 'membrane' : 'line',
      gauges: [],
      meter: { counts: 'up', setToL: null, rollsOverL: null },
    },
    build: NOTHING_BUILT,
    cartridges: [],
    services: [],
    upkeep: [],
    tasks: [],
    away: [],
    orderDays: null,
    removed: [],
    sensors: [],
    prices: usualPrices(row),
    choice: usualChoice(row),
  };
}

/** Large membranes run at their own recovery; who comes to a counter or a laboratory is called. */
function usualChoice({ goal, stages }: TemplateRow): ChoiceSettings {
  const small = stages.some((stage) => stage.kind === 'membrane' && isSmallElement(stage.elementClass));
  const called = ['aquarium', 'cleaning'].includes(GOAL_ROWS[goal].family) ? OPEN_CHOICE.visitCost : CALLED_VISIT;
  return { ...OPEN_CHOICE, leastWaste: small ? OPEN_CHOICE.leastWaste : null, visitCost: called };
}
const CALLED_VISIT = 60;

/** Placeholders of a job like this: the sea costs nothing. */
const usualPrices = ({ supply }: TemplateRow): Prices => ({
  ...PLACEHOLDER_PRICES,
  ...(supply?.character === 'seawater' && { waterPerM3: 0, sewerPerM3: 0 }),
});
