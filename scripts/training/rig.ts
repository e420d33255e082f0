import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import type { Away, System } from '../../core/file';
import type { ElementClass } from '../../core/membrane';
import { findRoot } from '../../core/numeric';
import { systemFromTemplate } from '../../core/template';
import { value } from '../../core/testing/close';
import { settleWater, waterFromPH } from '../../core/water';

/** The six systems of the training logs, as a keeper would enter them: what `system-X.json` tells, and nothing of the truth. */

export const FOLDER = join(import.meta.dirname, 'logs');

/** A system as its file tells of it. */
export interface Told {
  readonly system: string;
  readonly title: string;
  readonly goal_us_cm: number;
  readonly elements?: { readonly klass: ElementClass; readonly count: number };
  readonly restrictor?: { readonly length_mm: number; readonly bore_mm: number };
  readonly valve?: { readonly kv_m3_h: number };
  readonly pump?: {
    readonly kind: 'booster' | 'centrifugal';
    readonly rise_no_flow_bar: number;
    readonly open_flow_l_h: number;
    readonly bypass_bar: number;
    readonly at_l_h: number;
    readonly rise_there_bar: number;
  };
  readonly gauge: string;
  readonly line_bar: number;
  readonly filter: { readonly clean_loss_bar: number; readonly at_l_h: number };
  readonly tap: {
    readonly us_cm: number;
    readonly season: number;
    readonly towns: readonly number[] | null;
    readonly hco3_share: number;
    readonly co2_mmol_l: number;
    readonly silica_mmol_l: number;
  };
  readonly temperature: { readonly mean_c: number; readonly amplitude_c: number };
  readonly resin: {
    readonly litres: number;
    readonly beds: number;
    readonly depth_m: number;
    readonly packing: number;
    readonly flow_l_min: number;
  };
  readonly use_l_per_day_by_weekday: readonly number[];
  readonly use_season: { readonly share: number; readonly busiest_day: number };
  readonly meters: {
    readonly ppm_per_us_cm: number;
    readonly unit: string;
    readonly step: number;
    readonly one_for_all_probes: boolean;
    readonly water_meter: string;
    readonly roll_over_l: number | null;
  };
}

export const told = (letter: string): Told => JSON.parse(readFileSync(join(FOLDER, `system-${letter}.json`), 'utf8')) as Told;

const TEMPLATES = {
  E: 'marineHousehold',
  F: 'marineHousehold',
  G: 'marinePair',
  H: 'vanCart',
  I: 'resinVessel',
  J: 'skid',
} as const;
const L_PER_H_PER_GPM = 227.124707;
const MG_PER_MEQ = { Ca: 20.039, Mg: 12.1525, Na: 22.99, K: 39.098, Cl: 35.453, SO4: 48.0315, NO3: 62.005 } as const;

/** A supply report that has the conductivity, the carbon dioxide and the shares the file tells of. */
function reportOf({ tap, temperature }: Told, ec25UScm: number): System['source']['samples'][number]['report'] {
  const mgL = (meq: number): Record<string, number> => ({
    Ca: 0.6 * meq * MG_PER_MEQ.Ca,
    Mg: 0.15 * meq * MG_PER_MEQ.Mg,
    Na: 0.2 * meq * MG_PER_MEQ.Na,
    K: 0.05 * meq * MG_PER_MEQ.K,
    Cl: 0.2 * meq * MG_PER_MEQ.Cl,
    SO4: 0.17 * meq * MG_PER_MEQ.SO4,
    NO3: (0.8 - tap.hco3_share - 0.17) * meq * MG_PER_MEQ.NO3,
    SiO2: tap.silica_mmol_l * 60.084,
  });
  const alkalinity = (meq: number): number => tap.hco3_share * meq * 50.0435;
  const settled = (meq: number, pH: number, celsius: number): { ec25UScm: number; co2MgL: number } =>
    value(settleWater(value(waterFromPH(mgL(meq), alkalinity(meq), pH, celsius))));
  const meq = findRoot((x) => settled(x, 7.4, 25).ec25UScm - ec25UScm, 0.5, 20, 1e-6)!.x;
  const pH = findRoot((x) => settled(meq, x, temperature.mean_c).co2MgL / 44.01 - tap.co2_mmol_l, 6, 9, 1e-6)!.x;
  return {
    title: 'System file',
    text: '',
    closeBalance: false,
    values: [
      ...Object.entries(mgL(meq)).map(([quantity, amount]) => ({ quantity, value: amount, below: false })),
      { quantity: 'alkalinityMgL', value: alkalinity(meq), below: false },
      { quantity: 'pH', value: pH, below: false },
    ],
  } as System['source']['samples'][number]['report'];
}

/** Weeks of half use from mid-July to the end of August, as the laboratory's keeper tells. */
const outOfTerm = (start: string): Away[] =>
  [0, 1, 2].map((year) => ({ id: `term-${year}`, from: `${Number(start.slice(0, 4)) + year}-07-20`, days: 44, share: 0.55 }));

/** The system a log was kept of, on its first day. */
export function systemOf(d: Told, start: string, meter: { readonly kind: string; readonly set_l: number | null }): System {
  const letter = d.system as keyof typeof TEMPLATES;
  const base = systemFromTemplate({
    id: `log-${letter}`,
    name: d.title.slice(0, 60),
    site: 'Training',
    template: TEMPLATES[letter],
    at: `${start}T00:00:00Z`,
  });
  type Stage = System['train']['stages'][number];
  const own = <K extends Stage['kind']>(kind: K): Extract<Stage, { kind: K }> =>
    base.train.stages.find((stage) => stage.kind === kind) as Extract<Stage, { kind: K }>;
  const stages: Stage[] = [
    { ...own('sediment'), id: 'sediment', cleanLossBar: (d.filter.clean_loss_bar * L_PER_H_PER_GPM) / d.filter.at_l_h, fittedOn: start },
  ];
  if (d.pump) {
    const cart = systemFromTemplate({ id: 'x', name: 'x', site: 'x', template: 'vanCart', at: `${start}T00:00:00Z` });
    const pump = cart.train.stages.find(({ kind }) => kind === 'pump') as Extract<Stage, { kind: 'pump' }>;
    const { kind, rise_no_flow_bar: top, open_flow_l_h, bypass_bar, at_l_h, rise_there_bar } = d.pump;
    stages.push({
      ...pump,
      id: 'pump',
      name: 'Pump',
      fittedOn: start,
      pump:
        kind === 'booster'
          ? { kind, riseBar: top, openFlowLPerH: open_flow_l_h, bypassBar: bypass_bar }
          : { kind, shutOffBar: top, atLPerH: at_l_h, atBar: rise_there_bar, speed: 1 },
    });
  }
  if (d.elements)
    stages.push({
      ...own('membrane'),
      id: 'membrane',
      elementClass: d.elements.klass,
      arrangement: d.elements.count === 1 ? 'single' : 'series',
      ranks: [],
      recycleLPerH: 0,
      recycleKv: null,
      fittedOn: start,
      ...(d.valve
        ? { valve: { kind: 'needle' as const, kvM3PerH: d.valve.kv_m3_h } }
        : {
            valve: null,
            restrictor: { ...own('membrane').restrictor, lengthMm: d.restrictor!.length_mm, boreMm: d.restrictor!.bore_mm, assumed: false },
          }),
    });
  if (letter === 'J') stages.push(own('tank'));
  for (let bed = 1; bed <= d.resin.beds; bed++)
    stages.push({
      ...own('resin'),
      id: `resin-${bed}`,
      name: d.resin.beds === 1 ? 'Resin' : `Resin ${bed}`,
      resinClass: 'mixedBed',
      volumeL: d.resin.litres,
      depthMm: 1000 * d.resin.depth_m,
      packing: d.resin.packing,
      fittedOn: start,
    });
  const scale =
    d.meters.unit === 'ppm' ? ({ kind: 'factor', factor: d.meters.ppm_per_us_cm } as const) : ({ kind: 'conductivity' } as const);
  const pen = (id: string, resolution: number): System['instruments'][number] => ({
    ...base.instruments[0]!,
    id,
    name: id,
    scale,
    resolution,
    carried: d.meters.one_for_all_probes,
  });
  // One of three resolutions for each place at the laboratory.
  const instruments = letter === 'J' ? [pen('meter', 1), pen('meter-b', 0.1), pen('meter-c', 0.01)] : [pen('meter', d.meters.step)];
  const probe = (id: string, name: string, after: string, instrumentId: string): System['train']['probes'][number] => ({
    ...base.train.probes[0]!,
    id: `probe-${id}`,
    name,
    after,
    instrumentId,
  });
  const towns = d.tap.towns ?? [1];
  const tapUScm = (d.tap.us_cm * towns.reduce((a, b) => a + b, 0)) / towns.length;
  const sample = base.source.samples[0]!;
  return {
    ...base,
    instruments,
    away: letter === 'J' ? outOfTerm(start) : [],
    units: { ...base.units, ppmFactor: d.meters.unit === 'ppm' ? d.meters.ppm_per_us_cm : 0.5 },
    source: {
      ...base.source,
      assumed: [],
      linePressureBar: d.line_bar,
      samples: [
        {
          ...sample,
          way: 'report',
          temperatureC: d.temperature.mean_c,
          reading: tapUScm,
          instrumentId: 'meter',
          chlorineMgL: 0,
          chloramineMgL: 0,
          takenOn: start,
          report: reportOf(d, tapUScm),
        },
      ],
      season: {
        ...base.source.season,
        lowestTemperatureC: d.temperature.mean_c - d.temperature.amplitude_c,
        highestTemperatureC: d.temperature.mean_c + d.temperature.amplitude_c,
        weakestUScm: d.tap.us_cm * (1 - d.tap.season),
        strongestUScm: d.tap.us_cm * (1 + d.tap.season) * Math.max(...towns),
      },
    },
    goal: {
      ...base.goal,
      crewLimitPpm: null,
      ownLimits: [{ quantity: 'ec25UScm' as const, low: null, high: d.goal_us_cm }],
      demand: {
        ...base.goal.demand,
        per: 'day',
        dayL: [...d.use_l_per_day_by_weekday],
        batches: [],
        season:
          d.use_season.share > 0
            ? { share: d.use_season.share, busiestMonth: Math.min(12, Math.floor(d.use_season.busiest_day / 30.44) + 1) }
            : null,
      },
    },
    train: {
      ...base.train,
      stages,
      gauge: d.gauge === 'membrane' ? 'membrane' : 'line',
      drawLPerH: 60 * d.resin.flow_l_min,
      branches: [],
      gauges: [],
      loop: letter === 'J' ? base.train.loop : null,
      meter:
        meter.kind === 'down'
          ? { counts: 'down', setToL: meter.set_l, rollsOverL: null }
          : { counts: 'up', setToL: null, rollsOverL: d.meters.roll_over_l },
      probes: [
        probe('tap', 'Tap', 'tap', 'meter'),
        ...(d.elements ? [probe('membrane', 'After membrane', 'membrane', letter === 'J' ? 'meter-b' : 'meter')] : []),
        probe('product', 'After resin', `resin-${d.resin.beds}`, letter === 'J' ? 'meter-c' : 'meter'),
      ],
    },
  };
}
