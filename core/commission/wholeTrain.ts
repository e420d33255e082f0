import { samplePorts } from '../advice';
import {
  allStages,
  behind,
  currentSample,
  feedPump,
  fittedProbes,
  gaugeDimension,
  isSamePlace,
  membraneStage,
  readsFlow,
  type Gauge,
  type System,
} from '../file';
import { isSmallElement } from '../membrane';
import { BAR_PER_PSI, formatQuantity, inSentence, words } from '../quantity';
import { FLOOD, kindOf, LOCAL_CODE, MAINS, seen, step, type Caution, type Measure, type Stage, type Step } from '../stage';
import { atGauge, atPlace } from '../train';
import { smallestStepUScm } from '../water';
import { LINE_STEP, type Expected } from './expected';
import { fixingStep, isBoat } from './hanging';
import { lastMeasured, openWork } from './work';

/** What a household membrane wants of its line, and what its housings hold (common practice: 45 and 80 psi). */
const HOUSEHOLD_LOW_BAR = 45 * BAR_PER_PSI;
const HOUSEHOLD_HIGH_BAR = 80 * BAR_PER_PSI;
/** What a skid's feed pump wants before it (common practice: 30 psi). */
const PUMP_LOW_BAR = 30 * BAR_PER_PSI;
/** What a second membrane on the waste of the first wants (common practice: near 60 psi). */
export const SERIES_BAR = 60 * BAR_PER_PSI;
/** Above this feed water is not from the cold side, °C (our judgement, below the 45 °C that kill a membrane). */
const COLD_SIDE_C = 35;
/** A gauge on a hose, and a thermometer or a pen's (common practice). */
const GAUGE = { share: 0.02, least: 0.1 };
const THERMOMETER = { share: 0, least: 0.5 };

export const SINKING: Caution = {
  title: 'A hose below the waterline can sink her',
  text: 'Shut the sea cock before anything is opened, and whenever she is left.',
};
const NOT_SEEN: Caution = {
  title: 'What a meter cannot say',
  text: '0 ppm is not zero contaminants: germs, organics and uncharged matter are not read. Drinking water needs its own tests.',
};

/** Fixed, fed, drained: before any water. */
export function placing(system: System): Step[] {
  const stages = allStages(system.train);
  const boat = isBoat(system);
  const drains = stages.some((stage) => kindOf(stage).plumbed(stage).drains);
  return [
    fixingStep(system),
    step({
      id: 'feed',
      act: 'hookUp',
      place: 'connect',
      ...(boat
        ? {
            title: 'Connect the intake: sea cock, strainer',
            how: 'Hose and clamps of sea quality, two clamps at each end below the waterline. The sea cock stays shut whenever nobody is aboard.',
            cautions: [SINKING],
          }
        : {
            title: 'Connect cold feed with its own valve',
            how: 'Cold side only: above about 45 °C a membrane dies. Cut tubing square with a cutter, push it home, pull at it once.',
            cautions: [LOCAL_CODE, FLOOD],
          }),
      minutes: 15,
    }),
    ...(drains
      ? [
          step({
            id: 'waste',
            act: 'drain',
            place: 'connect',
            ...(boat
              ? {
                  title: 'Run the waste overboard, above the waterline',
                  how: 'A loop well above the water when she heels, so that nothing siphons back.',
                  cautions: [SINKING],
                  measures: [seen('gap', 'It leaves above the water, heeled too', 'Lead it higher, or fit a vented loop.')],
                }
              : {
                  title: 'Run the waste to a drain with an air gap',
                  how: 'The end of the waste line stays above the highest water level of the drain.',
                  cautions: [LOCAL_CODE],
                  measures: [
                    seen('gap', 'Air stands between line and drain', 'Raise the line: a drain that backs up would run into the unit.'),
                  ],
                }),
            minutes: 10,
          }),
        ]
      : []),
  ];
}

/** The line as it was planned before anybody read it: what was read at this step does not become what was planned. */
function plannedBar(system: System): number {
  const open = openWork(system);
  return (open && lastMeasured(open, LINE_STEP.step, LINE_STEP.pressure)?.expected) ?? system.source.linePressureBar;
}

/** Whether somebody knew the line's pressure, or a template took one for it. */
const planned = ({ source }: System): string => (source.assumed.includes('linePressure') ? 'assumed' : 'planned');

/** Which pressure this train takes, and what to do outside it. */
function pressureMeasure(system: System): Measure {
  const { train } = system;
  const membrane = membraneStage(train.stages);
  const pump = feedPump(train.stages)?.pump;
  const low = pump ? (pump.kind === 'centrifugal' ? PUMP_LOW_BAR : null) : membrane ? HOUSEHOLD_LOW_BAR : null;
  const small = !membrane || isSmallElement(membrane.elementClass);
  const psi = (bar: number): string => formatQuantity(bar, 'pressureBar', system.units).text;
  return {
    id: LINE_STEP.pressure,
    label: 'Line pressure',
    dimension: 'pressureBar',
    expected: plannedBar(system),
    low,
    high: small ? HOUSEHOLD_HIGH_BAR : null,
    doubt: GAUGE,
    because: `${psi(plannedBar(system))} was ${planned(system)}; every figure below follows the one you read`,
    ifLow: pump
      ? 'The pump would draw air: open the feed fully, look for a clogged strainer, take a larger line.'
      : 'It makes little and holds back less. A booster pump is the answer: add it in Train.',
    ifHigh: 'Fit a pressure regulator before anything else: housings and fittings of this size let go above it.',
  };
}

/** Pressure and temperature of the hour: what all predictions follow. */
export const readingTheLine = (system: System): Step =>
  step({
    id: LINE_STEP.step,
    act: 'linePressure',
    place: 'pressure',
    title: `Read the line pressure; ${formatQuantity(plannedBar(system), 'pressureBar', system.units).text} was ${planned(system)}`,
    how: 'Open the feed slowly into a bucket. A gauge on the line, a pen or a thermometer in the bucket.',
    minutes: 5,
    cautions: [FLOOD],
    measures: [
      pressureMeasure(system),
      {
        id: LINE_STEP.temperature,
        label: 'Water temperature',
        dimension: 'temperatureC',
        expected: currentSample(system.source).temperatureC,
        low: null,
        high: COLD_SIDE_C,
        doubt: THERMOMETER,
        because: 'output follows it by about 3 % a degree',
        ifHigh: 'That is not the cold side: find the cold line. Above about 45 °C a membrane dies.',
      },
    ],
  });

/** Joints wiped dry: where pressure is raised later, before that, at what the line or the pump gives with its valve open. */
export const leakCheck = ({ train: { stages } }: Pick<System, 'train'>): Step =>
  step({
    id: 'leaks',
    act: 'leaks',
    place: 'membrane',
    ...(stages.some((stage) => stage.kind === 'membrane' && stage.valve !== null)
      ? {
          title: 'Wipe every joint dry at low pressure',
          how: 'Valve wide open, before any pressure is raised. Dry every joint with paper, wait ten minutes, wipe again.',
        }
      : { title: 'Leak check at full pressure', how: 'Dry every joint with paper, wait ten minutes, wipe again.' }),
    minutes: 10,
    waits: true,
    cautions: [FLOOD],
    measures: [
      seen(
        'dry',
        'Every joint stayed dry',
        'Pressure off. Cut the tube square, push it home, wipe again. A fitting that weeps twice is exchanged.',
      ),
    ],
  });

/** Gauges before and after the filters: what they take when new is what clogging is told from. */
export function filterDrop(system: System, expected: Expected | null): Step[] {
  const { stages } = system.train;
  const at = stages.findIndex(({ kind }) => kind === 'membrane');
  const filters = stages.slice(0, Math.max(at, 0)).filter((stage) => kindOf(stage).prefilter);
  if (filters.length === 0) return [];
  const behind = expected?.solved.stations[stages.indexOf(filters.at(-1)!) + 1]?.pressureBar ?? null;
  const ahead = expected ? Math.min(expected.linePressureBar, system.source.regulatorBar ?? Infinity) : null;
  const drop = ahead !== null && behind !== null ? ahead - behind : null;
  return [
    step({
      id: 'filter-drop',
      act: 'filterDrop',
      place: 'setting',
      title: 'Read the gauges before and after the filters',
      before: 'Water runs as it will in service.',
      how: 'Both while it runs. What the filters take now, clean, is what clogging is told from later.',
      minutes: 3,
      measures: [
        {
          id: 'beforeBar',
          label: 'Before the filters',
          dimension: 'pressureBar',
          expected: ahead,
          low: null,
          high: null,
          doubt: GAUGE,
          because: 'kept beside the figure after them',
        },
        {
          id: 'afterBar',
          label: 'After the filters',
          dimension: 'pressureBar',
          expected: behind,
          low: behind === null || drop === null ? null : behind - Math.max(0.3, drop),
          high: null,
          doubt: GAUGE,
          because: 'solved for clean filters at this flow',
          ifLow: 'A valve half shut, a wrapper left on a cartridge, a cartridge upside down.',
        },
      ],
    }),
  ];
}

/** The product port of every vessel, where there are several: one bad O-ring hides in the mixture. */
export function portsOf(system: System, expected: Expected | null): Step[] {
  const stage = membraneStage(system.train.stages);
  const ports = expected ? samplePorts(system, expected.solved) : [];
  if (!stage || (stage.arrangement !== 'array' && stage.arrangement !== 'parallel')) return [];
  return [
    step({
      id: 'ports-read',
      act: 'readPorts',
      place: 'setting',
      stageId: stage.id,
      title: 'Read the product port of every vessel',
      before: 'Pressure and flows stand.',
      how: 'A little from each sample port into a rinsed cup, or a pen held in its stream.',
      minutes: 10,
      measures: ports.map((port): Measure => ({
        id: `port-${port.rank}-${port.vessel}`,
        label: port.name,
        dimension: 'conductivityUScm',
        expected: port.expectedUScm,
        low: port.expectedUScm / 2,
        high: 2 * port.expectedUScm,
        doubt: { share: 0.03, least: 0.5 },
        because: 'solved for this vessel, twice it either way',
        ifHigh: 'This vessel lets salt pass: an O-ring rolled, or its element is torn. The others are well.',
        ifLow: 'Is it this vessel’s port? Rinse the cup and read again.',
        port: { stageId: port.stageId, rank: port.rank, vessel: port.vessel },
      })),
    }),
  ];
}

/** Water that goes round: started once the tank holds some. */
export function circulating(system: System, expected: Expected | null): Step[] {
  const { loop } = system.train;
  if (!loop) return [];
  const end = expected?.solved.stations.at(-1)?.state.ec25UScm ?? null;
  return [
    step({
      id: 'circulate',
      act: 'circulate',
      place: 'running',
      title: `Start the loop at ${words(system.units).of(loop.flowLPerH, 'flowLPerH')}`,
      before: 'The lower float has released the pump.',
      how: 'Bleed the highest point. The loop never stands still: bacteria grow where it does.',
      minutes: 30,
      waits: true,
      cautions: [MAINS],
      measures: [
        {
          id: 'flow',
          label: 'Flow round the loop',
          dimension: 'flowLPerH',
          expected: loop.flowLPerH,
          low: 0.8 * loop.flowLPerH,
          high: null,
          doubt: { share: 0.05, least: 5 },
          because: 'planned; a fifth less lets it stand too long',
          ifLow: 'Open the return, bleed the pump, look which way it turns.',
        },
        {
          id: 'ec',
          label: 'At the last outlet',
          dimension: 'conductivityUScm',
          expected: end,
          low: null,
          high: end === null ? null : 2 * end,
          doubt: { share: 0.03, least: 0.01 },
          because: 'twice what the polisher gives on this water',
          ifHigh: 'Let it go round: every pass takes some. Still high after an hour: air at the probe, or the bed was packed loose.',
        },
      ],
    }),
  ];
}

/** Probes in the line, the figures of the first day, and the people who get it. */
export function handingOver(system: System, expected: Expected | null): Step[] {
  const probes = fittedProbes(system);
  return [
    ...(probes.length > 0
      ? [
          step({
            id: 'probes',
            act: 'probes',
            place: 'meters',
            title:
              probes.length === 1
                ? 'Fit the probe, pins side by side across the flow'
                : `Fit ${probes.length} probes, pins side by side across the flow`,
            how: 'Both pins equally in the flow; clean tips, fresh battery.',
            minutes: 10,
            measures: [seen('across', 'Both pins stand across the flow', 'Turn the tee: one pin behind the other reads low.')],
          }),
          step({
            id: 'bleed',
            act: 'bleed',
            place: 'meters',
            title: 'Let the air out of the meter housing',
            before: 'Water runs past the probes.',
            how: 'Tilt it or tap it until no bubble stands at the pins.',
            minutes: 3,
            measures: [seen('steady', 'The figures stand still', 'A figure that jumps has air at its pins: tilt, tap, wait.')],
          }),
        ]
      : []),
    step({
      id: 'baseline',
      act: 'baseline',
      place: 'handOver',
      title: 'Record the baseline',
      before: 'It runs as it will in service.',
      how: 'Read everything once, in one go: later readings are judged by this one.',
      minutes: 5,
      tool: 'baseline',
      measures: baselineMeasures(system, expected),
    }),
    step({
      id: 'handover',
      act: 'handOver',
      place: 'handOver',
      title: 'Hand over',
      before: 'Every joint was wiped dry and the baseline stands.',
      how: 'Show how to shut it off, what the meter should read, and when to call.',
      minutes: 10,
      cautions: [NOT_SEEN],
      measures: [seen('shown', 'Shown: stopcock, meter, whom to call', 'Nobody is left alone with a system they cannot shut off.')],
    }),
  ];
}

/** What the baseline reads: each probe by its own meter, the product and, behind a membrane, the waste. */
function baselineMeasures(system: System, expected: Expected | null): Measure[] {
  const unit = expected?.solved.unit ?? null;
  const membrane = membraneStage(system.train.stages) !== undefined;
  const flow = (id: string, label: string, value: number | null): Measure => ({
    id,
    label,
    dimension: 'flowLPerH',
    expected: value,
    low: value === null ? null : 0.75 * value,
    high: value === null ? null : 1.25 * value,
    doubt: { share: 0.03, least: 0.3 },
    because: 'solved for today, a quarter either way',
    ifLow: 'A clogged filter, a valve half shut, a float that holds back, less pressure than read.',
    ifHigh: 'A torn seal lets feed into the product, or the line pressure rose: read it again.',
  });
  return [
    ...system.train.probes.map((probe): Measure => {
      const instrument = system.instruments.find(({ id }) => id === probe.instrumentId);
      const least = instrument ? smallestStepUScm(instrument) : 1;
      const station = expected && atPlace(expected.solved, probe);
      const value = station?.state.ec25UScm ?? null;
      const tap = probe.after === 'tap';
      return {
        id: `probe-${probe.id}`,
        label: probe.name,
        dimension: 'conductivityUScm',
        expected: value,
        low: tap && value !== null ? 0.7 * value : null,
        high: value === null ? null : Math.max(least, tap ? 1.4 * value : 2 * value),
        doubt: { share: 0.03, least: least / 2 },
        because: tap ? 'the tap as it was entered' : `solved behind ${inSentence(station?.name ?? probe.name)}`,
        ifLow: 'Another water than the one planned with: enter it in Water, the figures follow.',
        ifHigh: tap
          ? 'Another water than the one planned with: enter it in Water, the figures follow.'
          : 'Wait until it stands still; then look for air at the pins, a rolled O-ring, loose resin.',
      };
    }),
    ...(membrane
      ? [flow('productLPerH', 'Product', unit?.permeateLPerH ?? null), flow('wasteLPerH', 'Waste', unit?.concentrateLPerH ?? null)]
      : []),
    ...system.train.gauges.flatMap((gauge) => gaugeMeasure(system, gauge, expected)),
  ];
}

/** A further gauge or flow meter: what it should show today, a quarter either way; product and waste are read by the jug already. */
function gaugeMeasure(system: System, gauge: Gauge, expected: Expected | null): Measure[] {
  if (gauge.at === 'product' || gauge.at === 'waste') return [];
  const flow = readsFlow(gauge);
  const value = expected && atGauge(system, expected.solved, gauge.at);
  return [
    {
      id: `gauge-${gauge.id}`,
      label: gauge.name,
      dimension: gaugeDimension(gauge),
      expected: value,
      low: value === null ? null : 0.75 * value,
      high: value === null ? null : 1.25 * value,
      doubt: flow ? { share: 0.03, least: 0.3 } : { share: 0.02, least: 0.1 },
      because: 'solved for today, a quarter either way',
      ifLow: 'Look at what stands before it: a valve half shut, a clogged filter, a pump that does not reach its speed.',
      ifHigh: 'Look at what stands after it: a valve nearly shut, a restrictor clogged, a line squeezed.',
    },
  ];
}

/** The smallest step of the meter that reads behind a stage, µS/cm; a middling pen's where none does. */
export function meterStepBehind(system: System, stage: Stage): number {
  const probe = system.train.probes.find((one) => isSamePlace(one, behind(stage.id)));
  const instrument = system.instruments.find(({ id }) => id === (probe?.instrumentId ?? '')) ?? system.instruments[0];
  return instrument ? smallestStepUScm(instrument) : 1;
}
