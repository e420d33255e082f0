/**
 * Writes the demonstration: two invented systems with some months of readings made by the product's own
 * model plus the scatter of real meters. Everything in it is made up. Run with `npm run demo`.
 */
import { METRIC_UNITS, GALLON_UNITS } from '../core/quantity';
import { mkdirSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { measuredOf, newWork, runbook, runbookSteps, type WorkAsked } from '../core/commission';
import { mapStages, NO_KIT, NO_REPORT, NOTHING_SAID, writeDocument, type Reading, type Sample, type System, type Work } from '../core/file';
import { readReport } from '../core/report';
import { readingFromEc25 } from '../core/water';
import { newInstrument, systemFromTemplate } from '../core/template';
import { solveTrain, tapWater } from '../core/train';
import { stageBed } from '../core/stage';
import { bedCapacityEq, ionicLoad } from '../core/exchange';
import { seeded } from '../core/numeric';

const SAVED_AT = '2026-11-23T09:00:00.000Z';
const DAY = 86_400_000;

/** Roughly normal scatter with standard deviation 1. */
const scatter = (random: () => number): number => random() + random() + random() + random() - 2;

function must<T>(outcome: { ok: true; value: T } | { ok: false; error: { message: string } }): T {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}

const day = (daysAgo: number): string => new Date(Date.parse(SAVED_AT) - daysAgo * DAY).toISOString().slice(0, 10);

/** A piece of work as it stands: all of its steps done, or the first so many of them, the last hour before `at`. */
function workOf(system: System, asked: WorkAsked, at: string, count?: number): Work {
  const steps = runbookSteps(runbook(system, null, asked));
  const done = steps.slice(0, count ?? steps.length);
  const minutes = done.reduce((sum, step) => sum + step.minutes, 0);
  let clock = Date.parse(at) - minutes * 60_000;
  return {
    ...newWork(`${asked.kind}-${at.slice(0, 10)}`, asked.kind, asked.stageId, new Date(clock).toISOString()),
    done: done.map((step) => ({ step: step.id, at: new Date((clock += step.minutes * 60_000)).toISOString() })),
    endedAt: count === undefined ? at : null,
  };
}

/** A system that was built and handed over on a day, and what was begun since. */
const handedOver = (system: System, daysAgo: number, open: readonly Work[] = []): System => ({
  ...system,
  build: {
    ...system.build,
    works: [workOf(system, { kind: 'newBuild', stageId: null }, `${day(daysAgo)}T16:00:00.000Z`), ...open],
    commissioned: { at: `${day(daysAgo)}T16:00:00.000Z`, train: system.train, readingId: null },
  },
});

/** A made-up laboratory sheet of the dry season, read as anyone would paste it. */
function summerReport(): Sample['report'] {
  const text = [
    'Determinand\tUnit\tResult',
    'Calcium\tmg/l\t83',
    'Magnesium\tmg/l\t13.5',
    'Sodium\tmg/l\t41',
    'Potassium\tmg/l\t5.4',
    'Alkalinity\tmg/l as CaCO3\t184',
    'Chloride\tmg/l\t57',
    'Sulphate\tmg/l\t70',
    'Nitrate as N\tmg/l\t3.9',
    'Silica\tmg/l as SiO2\t9.2',
    'Ammonium as NH4\tmg/l\t<0.05',
    'Fluoride\tµg/l\t700',
    'Conductivity at 25 °C\tmS/m\t70.4',
    'pH\tpH units\t7.8',
    'Turbidity\tNTU\t0.3',
  ].join('\n');
  const { rows } = must(readReport(text));
  return {
    title: 'Laboratory sheet, dry season',
    text,
    values: rows.flatMap((row) => (row.value ? [row.value] : [])),
    closeBalance: false,
  };
}

function coralNursery(): System {
  const base = systemFromTemplate({
    id: 'demo-coral-nursery',
    name: 'Coral nursery make-up',
    site: 'Tressimoor Coral Shed',
    template: 'marinePair',
    at: `${day(250)}T08:00:00.000Z`,
  });
  const stages = base.train.stages.map((stage) => {
    switch (stage.id) {
      case 'sediment':
        return { ...stage, fittedOn: day(11) };
      case 'carbon-1':
      case 'carbon-2':
        return { ...stage, medium: 'catalyticBlock' as const, volumeL: 0.7, ratedL: 45_000, fittedOn: day(40) };
      case 'membrane':
        return {
          ...stage,
          restrictor: { form: 'tube', lengthMm: 221, boreMm: 1.36, assumed: false, flushLever: false },
          waterFactor: 0.94,
          saltFactor: 1.12,
          fittedOn: day(248),
        };
      case 'resin-1':
        return { ...stage, resinClass: 'colourMixedBed' as const, volumeL: 2.4, depthMm: 600, fittedOn: day(38) };
      case 'resin-2':
        return { ...stage, resinClass: 'colourMixedBed' as const, volumeL: 2.4, depthMm: 600, fittedOn: day(38) };
      default:
        return stage;
    }
  }) as System['train']['stages'];
  return {
    ...base,
    demo: true,
    units: GALLON_UNITS,
    source: {
      assumed: [],
      name: 'Mains',
      samples: [
        {
          id: 'sample-1',
          takenOn: day(96),
          character: 'municipal',
          way: 'report',
          temperatureC: 18,
          reading: 352,
          instrumentId: 'meter',
          kit: NO_KIT,
          report: summerReport(),
          chlorineMgL: 0.2,
          chloramineMgL: 0.6,
        },
        {
          id: 'sample-2',
          takenOn: day(14),
          character: 'municipal',
          way: 'kit',
          temperatureC: 13,
          reading: 306,
          instrumentId: 'meter',
          kit: {
            ...NO_KIT,
            hardnessMgL: 213.6,
            alkalinityMgL: 151.3,
            pH: 7.7,
            hardnessCount: { drops: 24, sampleMl: 10, mgPerDrop: 17.8, nominalSampleMl: 5 },
            alkalinityCount: { drops: 17, sampleMl: 10, mgPerDrop: 17.8, nominalSampleMl: 5 },
          },
          report: NO_REPORT,
          chlorineMgL: 0.12,
          chloramineMgL: 0.5,
        },
      ],
      sampleId: 'sample-2',
      linePressureBar: 4.206,
      regulatorBar: null,
      turbidityNTU: 0.3,
      silt: { initialSeconds: 31, finalSeconds: 41, minutes: 15 },
      season: { lowestTemperatureC: 6, highestTemperatureC: 19, weakestUScm: null, strongestUScm: null },
      second: null,
    },
    instruments: [
      { ...base.instruments[0]!, calibratedOn: day(120) },
      { ...newInstrument('pen', 'Pen in the salt room'), scale: { kind: 'factor', factor: 0.7 } },
      { ...newInstrument('bench', 'Bench meter'), scale: { kind: 'conductivity' }, resolution: 0.1, calibratedOn: day(30) },
    ],
    comparison: {
      referenceId: 'bench',
      glasses: [
        {
          id: 'glass-1',
          shown: [
            { instrumentId: 'meter', shown: 306 },
            { instrumentId: 'pen', shown: 447 },
            { instrumentId: 'bench', shown: 609 },
          ],
        },
        {
          id: 'glass-2',
          shown: [
            { instrumentId: 'meter', shown: 10 },
            { instrumentId: 'pen', shown: 19 },
            { instrumentId: 'bench', shown: 20.6 },
          ],
        },
      ],
    },
    goal: {
      ...base.goal,
      demand: {
        hoursPerDay: 8,
        cupL: 0.15,
        draws: [],
        season: null,
        per: 'day',
        dayL: [40, 40, 40, 40, 40, 60, 47],
        hourShare: [0, 0, 0, 0, 0, 0, 1, 4, 4, 2, 1, 1, 1, 1, 1, 1, 3, 4, 3, 1, 0, 0, 0, 0],
        batches: [{ id: 'batch-1', name: 'Water change', weekday: 5, hour: 10, count: 1, litres: 120 }],
      },
    },
    train: { ...base.train, stages },
    build: {
      ...base.build,
      ratios: [
        {
          id: 'ratio-1',
          at: `${day(248)}T10:20:00.000Z`,
          wasteL: 0.89,
          productL: 0.245,
          seconds: 60,
          pressureBar: 4.2,
          temperatureC: 12,
          restrictorLengthMm: 221,
        },
      ],
    },
  };
}

function vanTank(): System {
  const base = systemFromTemplate({
    id: 'demo-van-tank',
    name: 'Van tank',
    site: 'Veldrastix Panes',
    template: 'vanTank',
    at: `${day(200)}T08:00:00.000Z`,
  });
  const stages = base.train.stages.map((stage) => {
    switch (stage.id) {
      case 'sediment':
        return { ...stage, fittedOn: day(168) };
      case 'carbon':
        return { ...stage, fittedOn: day(168) };
      case 'membrane':
        return {
          ...stage,
          elementClass: 'household150' as const,
          restrictor: { form: 'tube', lengthMm: 310, boreMm: 1.78, assumed: false, flushLever: false },
          fittedOn: day(196),
        };
      case 'resin':
        return { ...stage, volumeL: 25, depthMm: 900, fittedOn: day(66) };
      default:
        return stage;
    }
  }) as System['train']['stages'];
  return {
    ...base,
    demo: true,
    units: { ...METRIC_UNITS, hardness: '°dH' },
    source: {
      assumed: [],
      name: 'Yard tap',
      samples: [
        {
          id: 'sample-1',
          takenOn: day(20),
          character: 'chalk',
          way: 'meter',
          temperatureC: 11,
          reading: 244,
          instrumentId: 'meter',
          kit: NO_KIT,
          report: NO_REPORT,
          chlorineMgL: 0.4,
          chloramineMgL: 0,
        },
      ],
      sampleId: 'sample-1',
      linePressureBar: 3.5,
      regulatorBar: null,
      turbidityNTU: 0.3,
      silt: null,
      season: { lowestTemperatureC: 5, highestTemperatureC: 17, weakestUScm: null, strongestUScm: null },
      second: null,
    },
    goal: {
      ...base.goal,
      crewLimitPpm: 5,
      demand: {
        hoursPerDay: 8,
        cupL: 0.15,
        draws: [],
        season: null,
        per: 'week',
        dayL: [0, 0, 0, 0, 0, 0, 0],
        hourShare: new Array<number>(24).fill(1),
        batches: [0, 1, 2, 3, 4].map((weekday) => ({
          id: `fill-${weekday}`,
          name: 'Fill the van',
          weekday,
          hour: 6,
          count: 1,
          litres: 280,
        })),
      },
    },
    train: { ...base.train, stages },
    build: {
      ...base.build,
      ratios: [
        {
          id: 'ratio-1',
          at: `${day(196)}T15:00:00.000Z`,
          wasteL: 2.1,
          productL: 0.52,
          seconds: 60,
          pressureBar: 3.6,
          temperatureC: 12,
          restrictorLengthMm: 310,
        },
      ],
    },
  };
}

/** A yawl's watermaker, log in µS/cm, its filters near the end. */
function watermaker(): System {
  const base = systemFromTemplate({
    id: 'demo-watermaker',
    name: 'Watermaker',
    site: 'Boat Wibberjack',
    template: 'watermaker',
    at: `${day(120)}T08:00:00.000Z`,
  });
  return {
    ...base,
    demo: true,
    source: { ...base.source, assumed: [] },
    train: {
      ...base.train,
      stages: base.train.stages.map((stage) => {
        if (stage.kind === 'sediment') return { ...stage, holdsG: 60, fittedOn: day(40) };
        return stage.kind === 'membrane' ? { ...stage, fittedOn: day(118) } : stage;
      }),
    },
  };
}

/** A laboratory's skid: array, recycle, tank and mixed bed. */
function labSkid(): System {
  const base = systemFromTemplate({
    id: 'demo-lab-skid',
    name: 'Purified water skid',
    site: 'Orbindle Bench Rooms',
    template: 'skid',
    at: `${day(300)}T08:00:00.000Z`,
  });
  const working = [0.2, 0.2, 0.2, 0.3, 0.3, 0.4, 1, 3, 4, 4, 4, 3, 2, 3, 4, 4, 3, 2, 1, 0.5, 0.3, 0.2, 0.2, 0.2];
  return {
    ...base,
    demo: true,
    instruments: [
      { ...base.instruments[0]!, name: 'Loop monitor', scale: { kind: 'conductivity' }, resolution: 0.01, calibratedOn: day(60) },
    ],
    source: { ...base.source, assumed: [], samples: base.source.samples.map((sample) => ({ ...sample, reading: 480, chlorineMgL: 0.3 })) },
    goal: {
      ...base.goal,
      demand: {
        hoursPerDay: 8,
        cupL: 0.15,
        draws: [],
        season: null,
        per: 'day',
        dayL: [7000, 7400, 7400, 7200, 6800, 1500, 900],
        hourShare: working,
        batches: [{ id: 'rinse', name: 'Wash-up rinse', weekday: 4, hour: 17, count: 1, litres: 900 }],
      },
    },
    train: {
      ...base.train,
      stages: base.train.stages.map((stage) => {
        if (stage.kind === 'sediment') return { ...stage, holdsG: 900, fittedOn: day(90) };
        if (stage.kind === 'carbon') return { ...stage, ratedL: 6_000_000, fittedOn: day(120) };
        if (stage.kind === 'membrane') return { ...stage, fittedOn: day(296) };
        if (stage.kind === 'resin') return { ...stage, volumeL: 85, depthMm: 1100, fittedOn: day(20) };
        return stage;
      }),
    },
  };
}

/** A bar on hard water: one cartridge with its dial, its litres on a meter. */
function espressoBar(): System {
  const base = systemFromTemplate({
    id: 'demo-espresso-bar',
    name: 'Espresso machine',
    site: 'Quonsle Bar',
    template: 'espressoBar',
    at: `${day(130)}T08:00:00.000Z`,
  });
  return {
    ...base,
    demo: true,
    units: { ...METRIC_UNITS, hardness: '°dH' },
    source: {
      ...base.source,
      assumed: [],
      samples: base.source.samples.map((sample) => ({
        ...sample,
        takenOn: day(20),
        way: 'kit' as const,
        reading: 262,
        kit: {
          ...NO_KIT,
          hardnessMgL: 196.3,
          alkalinityMgL: 142.8,
          pH: 7.6,
          hardnessCount: { drops: 11, sampleMl: 5, mgPerDrop: 17.848, nominalSampleMl: 5 },
          alkalinityCount: { drops: 8, sampleMl: 5, mgPerDrop: 17.848, nominalSampleMl: 5 },
        },
      })),
    },
    train: {
      ...base.train,
      stages: base.train.stages.map((stage) => {
        if (stage.kind === 'sediment') return { ...stage, fittedOn: day(124) };
        if (stage.kind === 'carbon') return { ...stage, fittedOn: day(124) };
        return stage.kind === 'decarboniser'
          ? { ...stage, bypass: 0.4, box: { litres: 3750, hardnessMgL: 178.48, bypass: 0.3 }, fittedOn: day(46) }
          : stage;
      }),
    },
    goal: {
      ...base.goal,
      demand: {
        hoursPerDay: 8,
        cupL: 0.15,
        draws: [],
        season: null,
        per: 'day',
        dayL: [50, 50, 55, 60, 80, 90, 35],
        hourShare: [0, 0, 0, 0, 0, 0, 2, 6, 8, 7, 6, 5, 5, 4, 4, 4, 3, 2, 0, 0, 0, 0, 0, 0],
        batches: [],
      },
    },
  };
}

/** A counter on strong water: softener, membrane and blend for all, filters of their own for espresso and ice. */
function iceCounter(): System {
  const base = systemFromTemplate({
    id: 'demo-ice-counter',
    name: 'Coffee and ice counter',
    site: 'Frambleth Counter',
    template: 'counterHard',
    at: `${day(160)}T08:00:00.000Z`,
  });
  const ages: Record<string, number> = { softener: 158, sediment: 62, carbon: 62, membrane: 158, polish: 62 };
  const aged = <S extends System['train']['stages'][number]>(stage: S): S =>
    'fittedOn' in stage ? { ...stage, fittedOn: day(ages[stage.id] ?? 62) } : stage;
  return {
    ...base,
    demo: true,
    units: { ...GALLON_UNITS, hardness: 'gpg' },
    source: { ...base.source, assumed: [] },
    train: mapStages(base.train, aged),
  };
}

interface Story {
  readonly system: System;
  readonly seed: number;
  readonly days: readonly number[];
  /** Water temperature on a day counted back from the end. */
  readonly temperatureC: (daysAgo: number) => number;
  readonly litresPerDay: number;
  readonly note: (daysAgo: number) => string;
  /** Sediment loading over time. */
  readonly loading: (daysAgo: number) => number;
  /** Factors of the membrane over time, where it changes. */
  readonly factors?: (daysAgo: number) => { readonly water: number; readonly salt: number };
  /** What the meter shows of what is there, where it drifts. */
  readonly gain?: (daysAgo: number) => number;
}

/** Work on a part, so many days ago. */
const service = (
  daysAgo: number,
  stageId: string,
  name: string,
  change: Partial<System['services'][number]> = {},
): System['services'][number] => ({
  id: `service-${stageId}-${daysAgo}`,
  at: `${day(daysAgo)}T10:30:00.000Z`,
  stageId,
  instrumentId: null,
  taskId: null,
  name,
  work: 'changed',
  why: 'due',
  note: '',
  fittedOn: null,
  passedL: null,
  ...change,
});

/** Readings as such a system would have given them: solved day by day, then seen through a meter. */
function readingsOf(story: Story): Reading[] {
  const { system } = story;
  const random = seeded(story.seed).next;
  const tap = must(tapWater(system.source, system.instruments)).water;
  const resin = system.train.stages.find((stage) => stage.kind === 'resin');
  const fittedAgo =
    resin?.kind === 'resin' && resin.fittedOn ? (Date.parse(SAVED_AT) - Date.parse(`${resin.fittedOn}T00:00:00Z`)) / DAY : 0;
  let meterL = 2_400;
  let before = story.days[0]!;
  return story.days.map((daysAgo, i) => {
    const strength = 1 + 0.018 * scatter(random);
    const pressureBar = system.source.linePressureBar + 0.12 * scatter(random);
    const temperatureC = Math.round((story.temperatureC(daysAgo) + 0.4 * scatter(random)) * 2) / 2;
    const feed = { ...tap, temperatureC };
    const train = {
      ...system.train,
      stages: system.train.stages.map((stage) => {
        if (stage.kind === 'membrane' && story.factors) {
          const { water, salt } = story.factors(daysAgo);
          return { ...stage, waterFactor: water, saltFactor: salt };
        }
        return stage.kind === 'sediment' ? { ...stage, loading: story.loading(daysAgo) } : stage;
      }),
    };
    meterL += (before - daysAgo) * story.litresPerDay * (1 + 0.06 * scatter(random));
    before = daysAgo;
    const fresh = must(solveTrain(train, { linePressureBar: pressureBar }, feed));
    const load = fresh.resins[0] ? ionicLoad(fresh.resins[0].feed) : null;
    const litres = Math.max(0, fittedAgo - daysAgo) * story.litresPerDay;
    const use =
      resin && resin.kind === 'resin' && load
        ? {
            [resin.id]: {
              cationEq: (litres * load.cationMeqL) / 1000,
              anionEq: Math.min((litres * load.anionMeqL) / 1000, 0.98 * bedCapacityEq(stageBed(resin)).anionEq),
            },
          }
        : {};
    const solved = must(solveTrain(train, { linePressureBar: pressureBar }, feed, use));
    const values = system.train.probes.map((probe) => {
      const station = solved.stations.find((candidate) => candidate.after === probe.after)!;
      const instrument = system.instruments.find((candidate) => candidate.id === probe.instrumentId)!;
      const seen = readingFromEc25(
        station.state.ec25UScm * strength * (story.gain?.(daysAgo) ?? 1) * (1 + 0.03 * scatter(random)),
        instrument.scale,
      )!;
      return {
        probeId: probe.id,
        instrumentId: probe.instrumentId,
        shown: Math.max(0, Math.round(seen / instrument.resolution) * instrument.resolution),
      };
    });
    const { unit } = solved;
    const flows = unit !== null && (i % 2 === 0 || daysAgo <= 28);
    const hour = 7 + Math.floor(random() * 2);
    const minute = 5 * Math.floor(random() * 12);
    const at = new Date(Date.parse(SAVED_AT) - daysAgo * DAY);
    at.setUTCHours(hour, minute, 0, 0);
    return {
      id: `${system.id}-r${i}`,
      systemId: system.id,
      at: at.toISOString(),
      values,
      // Where a pump makes it, the gauge stands at the membrane.
      pressureBar: Math.round((system.train.gauge === 'membrane' && unit ? unit.feedPressureBar : pressureBar) * 20) / 20,
      temperatureC,
      productLPerH: flows ? Math.round((unit.permeateLPerH / 0.06) * (1 + 0.012 * scatter(random))) * 0.06 : null,
      wasteLPerH: flows ? Math.round(unit.concentrateLPerH / 0.6) * 0.6 : null,
      meterL: Math.round(meterL),
      ...NOTHING_SAID,
      note: story.note(daysAgo),
    };
  });
}

const every = (from: number, step: number): number[] => Array.from({ length: Math.floor(from / step) + 1 }, (_, i) => from - i * step);
const season =
  (mean: number, swing: number) =>
  (daysAgo: number): number =>
    mean + swing * Math.cos(((daysAgo - 95) / 365) * 2 * Math.PI);

/** New elements in the nursery, this morning: line read, flushed, soaked; the jugs come next. */
function changingMembranes(system: System): Work {
  const asked: WorkAsked = { kind: 'partChange', stageId: 'membrane' };
  const steps = runbookSteps(runbook(system, null, asked));
  const work = workOf(
    system,
    asked,
    SAVED_AT,
    steps.findIndex(({ id }) => id === 'ratio'),
  );
  const line = steps.find(({ id }) => id === 'line')!;
  const at = work.done.find(({ step }) => step === 'line')!.at;
  const read = (id: string, value: number): Work['measured'][number] =>
    measuredOf(
      system,
      line,
      line.measures.find((one) => one.id === id)!,
      value,
      at,
      { linePressureBar: null, temperatureC: null },
    );
  return { ...work, measured: [read('linePressureBar', 4.137), read('temperatureC', 12)] };
}

const coral: Story = {
  system: {
    ...handedOver(coralNursery(), 248, [changingMembranes(coralNursery())]),
    services: [
      service(40, 'carbon-1', 'Carbon 1', { fittedOn: day(221), passedL: 47_000 }),
      service(40, 'carbon-2', 'Carbon 2', { fittedOn: day(221), passedL: 47_000 }),
      service(38, 'resin-1', 'Resin 1', { why: 'spent', fittedOn: day(120) }),
      service(11, 'sediment', 'Sediment', { why: 'spent', note: 'brown after the main burst', fittedOn: day(190), passedL: 38_000 }),
    ],
  },
  seed: 11,
  days: every(238, 7).map((d) => d),
  temperatureC: season(14.5, 4.5),
  litresPerDay: 60,
  note: (d) => ({ 238: 'baseline', 35: 'new resin in both', 14: 'output down, pre-filter brown', 7: 'pre-filter changed' })[d] ?? '',
  loading: (d) => (d >= 14 && d <= 42 ? 0.25 + (42 - d) * 0.025 : d < 14 ? 0.05 + d * 0.012 : Math.min(0.5, 0.1 + (238 - d) * 0.0018)),
};
const van: Story = {
  // Put away for the winter, resin already aside.
  system: {
    ...handedOver(vanTank(), 196, [workOf(vanTank(), { kind: 'putAway', stageId: null }, SAVED_AT, 2)]),
    services: [service(66, 'resin', 'Resin', { why: 'spent', note: 'refilled', fittedOn: day(150) })],
  },
  // A membrane that ages fast on chalk.
  factors: (d) => ({ water: Math.exp((-0.2 * (196 - d)) / 196), salt: Math.exp((0.22 * (196 - d)) / 196) }),
  seed: 5,
  days: every(196, 7),
  temperatureC: season(13, 5),
  litresPerDay: 196,
  note: (d) => ({ 196: 'baseline', 63: 'resin refilled' })[d] ?? '',
  loading: (d) => Math.min(0.72, 0.08 + (196 - d) * 0.0033),
};

const boat: Story = {
  system: {
    ...handedOver(watermaker(), 118),
    services: [
      service(40, 'sediment-20', 'Filter 20 µm', { note: 'green' }),
      service(40, 'sediment-5', 'Filter 5 µm', {}),
      service(7, 'membrane', 'Membrane', { work: 'flushed', note: 'tank water through carbon' }),
    ],
  },
  seed: 23,
  days: every(112, 5),
  temperatureC: season(19, 4),
  litresPerDay: 150,
  note: (d) => ({ 112: 'baseline', 42: 'both filters changed', 7: 'flushed with tank water through carbon' })[d] ?? '',
  loading: (d) => (d > 40 ? Math.min(0.7, 0.05 + (112 - d) * 0.008) : 0.05 + (40 - d) * 0.006),
};
const lab: Story = {
  system: {
    ...handedOver(labSkid(), 296),
    services: [service(20, 'resin', 'Mixed bed', { why: 'spent', note: 'exchanged', fittedOn: day(118) })],
  },
  seed: 31,
  days: every(280, 14),
  temperatureC: season(14, 4),
  litresPerDay: 5600,
  note: (d) => ({ 280: 'baseline', 28: 'mixed bed exchanged soon', 14: 'mixed bed exchanged' })[d] ?? '',
  loading: (d) => 0.1 + ((280 - d) % 90) * 0.004,
};

const bar: Story = {
  system: handedOver(espressoBar(), 124),
  seed: 41,
  days: every(122, 6),
  temperatureC: season(15, 4),
  litresPerDay: 60,
  note: (d) => ({ 122: 'baseline', 44: 'new cartridge, dial at 4' })[d] ?? '',
  loading: (d) => Math.min(0.6, 0.05 + (122 - d) * 0.004),
};
const counter: Story = {
  system: {
    ...handedOver(iceCounter(), 158),
    services: [service(62, 'sediment', 'Sediment', {}), service(14, 'softener', 'Softener', { work: 'refilled' })],
  },
  // Its meter drifts upward, week by week.
  gain: (d) => Math.exp(Math.max(0, (0.3 * (100 - d)) / 100)),
  seed: 47,
  days: every(154, 7),
  temperatureC: season(15, 4),
  litresPerDay: 300,
  note: (d) => ({ 154: 'baseline', 63: 'filters changed, calcite topped up', 14: 'salt filled' })[d] ?? '',
  loading: (d) => 0.05 + ((154 - d) % 92) * 0.005,
};

const folder = fileURLToPath(new URL('../demo/', import.meta.url));
mkdirSync(folder, { recursive: true });
for (const [file, story] of [
  ['tressimoor-coral-nursery', coral],
  ['veldrastix-van-tank', van],
  ['wibberjack-watermaker', boat],
  ['orbindle-lab-skid', lab],
  ['quonsle-espresso', bar],
  ['frambleth-counter', counter],
] as const) {
  writeFileSync(`${folder}${file}.yesclear.json`, writeDocument([{ system: story.system, readings: readingsOf(story) }], SAVED_AT));
  console.log(`demo/${file}.yesclear.json written`);
}
