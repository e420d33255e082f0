import { elementCount } from '../membrane';
import { formatQuantity, inSentence, THIN } from '../quantity';
import type { StepsAround } from './kind';
import type { MembraneStage } from './membrane';
import { HIGH_PRESSURE } from './pump';
import { unitRanks } from './ranks';
import { CUT, DRINKING, FLOOD, GLOVES, PRESERVATIVE, PRODUCT_OPEN, seen, type Caution, type Measure, type StepEntry } from './step';

/** Flows, pressures and conductivity of a model and of real elements differ by about this (element data sheets: ±15 to 20 %). */
const FLOW_FITS = 0.2;
const PRESSURE_FITS = 0.1;
/** Product this many times stronger than solved has a reason of its own: an O-ring, a torn element. */
const PRODUCT_FITS = 2;
/** Reading a flow meter or a jug against a clock, and a gauge (common practice). */
const FLOW_DOUBT = { share: 0.03, least: 0.3 };
const GAUGE_DOUBT = { share: 0.02, least: 0.05 };

type Around = StepsAround<MembraneStage>;

/** A membrane put into service: ports, seats, preservative, then a restrictor that is cut or a valve that is turned. */
export const membraneSteps = (stage: MembraneStage, around: Around): StepEntry[] => [
  ...seating(stage, around),
  ...(stage.valve ? byValve(stage, stage.valve, around) : byRestrictor(stage, around)),
];

/** What its preservative asks for: resin behind it must not see it. */
const preservative = ({ resinBehind }: Pick<Around, 'resinBehind'>): Caution => (resinBehind ? PRESERVATIVE : GLOVES);
const about = (expected: number | null, share: number): Pick<Measure, 'expected' | 'low' | 'high'> => ({
  expected,
  low: expected === null ? null : expected * (1 - share),
  high: expected === null ? null : expected * (1 + share),
});

/** The gauge before the membrane against the solved train. */
const feedPressure = (unit: Around['unit']): Measure => ({
  id: 'feedPressureBar',
  label: 'Pressure at the membrane',
  dimension: 'pressureBar',
  ...about(unit?.feedPressureBar ?? null, PRESSURE_FITS),
  doubt: GAUGE_DOUBT,
  because: 'solved for today, a tenth either way',
});

/** What its product reads against the solved train. */
const productEc = ({ standing, meterStepUScm }: Around, most: number | null): Measure => ({
  id: 'productEc',
  label: 'Product reads',
  dimension: 'conductivityUScm',
  expected: standing?.after.state.ec25UScm ?? null,
  low: null,
  high: standing ? Math.max(meterStepUScm, most ?? PRODUCT_FITS * standing.after.state.ec25UScm) : most,
  doubt: { share: 0.03, least: meterStepUScm / 2 },
  because: most === null ? 'twice what the train gives on this water' : 'the limit of the goal',
  ifHigh:
    'Still falling: run on. Standing still: an O-ring rolled when the element went in, or it is not pushed home. Pressure off, take it out, look at both seals.',
});

/** Ports, seat and preservative: the same for every unit. */
function seating(stage: MembraneStage, around: Around): StepEntry[] {
  const { id, name } = stage;
  const elements = elementCount(unitRanks(stage));
  const the = inSentence(name);
  const all =
    elements === 1 ? 'the membrane, both seals' : elements === 2 ? 'both membranes, all seals' : `all ${elements} elements, all seals`;
  const own = around.first ? '' : `-${id}`;
  const { colours } = around;
  const here = (colour: string | null): string => (colour === null ? '' : ` (${colour} here)`);
  return [
    {
      id: `ports${own}`,
      act: 'ports',
      place: 'connect',
      title: around.first ? 'Check the three ports of the membrane housing' : `Check the ports of ${the}`,
      how: `Feed${here(colours.feed)} goes in alone at the cap end. At the other end the central port is product${here(colours.product)} and the offset one is waste${here(colours.waste)}.${
        stage.arrangement === 'series' ? ' The waste of the first goes on into the cap end of the second.' : ''
      }`,
      minutes: 2,
      measures: [
        seen(
          'ports',
          'Each line is on its port',
          'Change the lines now: a membrane fed backwards is spoiled, and product and waste look alike.',
        ),
      ],
    },
    ...(stage.valve
      ? [
          {
            id: `open${own}`,
            act: 'openValve',
            place: 'membrane',
            title: `Open the waste valve of ${the} wide`,
            how: 'As far as it goes. Product stays on a sample outlet or the drain.',
            minutes: 2,
          } as const,
        ]
      : []),
    {
      id: `seat${own}`,
      act: 'seat',
      place: 'membrane',
      title: `Seat ${all}`,
      before: 'The filters run clear.',
      how: 'The two small O-rings go in first; the lip seal sits at the feed end. Push until it stops. The cap’s own ring lies wet in its groove before it is closed.',
      minutes: 5 * Math.min(elements, 6),
      cautions: [preservative(around)],
      measures: [
        seen(
          'home',
          elements === 1 ? 'It is home, the cap closes by hand' : 'All are home, the caps close by hand',
          'Never force a cap: turn the element a little while pushing.',
        ),
      ],
    },
    ...(stage.valve
      ? [
          {
            id: `purge${own}`,
            act: 'purge',
            place: 'membrane',
            title: `Purge the air out of ${the} at low pressure`,
            before: 'It is seated and closed, its waste valve stands wide open.',
            how: 'Start the pump, or open the feed where line pressure drives it. Let waste and product run until no bubble comes; air that is squeezed later hits like a hammer.',
            minutes: 5,
            cautions: [FLOOD, PRODUCT_OPEN],
            measures: [
              seen(
                'noAir',
                'No air comes any more',
                'Run on at low pressure. Bubbles that do not end: look for a leak on the suction side.',
              ),
            ],
          } as const,
        ]
      : []),
    {
      id: `flush-membrane${own}`,
      act: 'flushPreservative',
      place: 'membrane',
      title: `Flush ${elements === 1 ? 'the membrane' : 'the membranes'} to the drain, 45 min`,
      before: 'No resin stands in the path of the product.',
      how: 'Waste and product both to the drain, to carry off the preservative. Between 15 and 60 minutes are told: longer where people or animals drink it, shorter where nothing foams.',
      minutes: 45,
      waits: true,
      cautions: [preservative(around), FLOOD],
      measures: [seen('foam', 'Nothing foams or smells in the product', 'Fifteen minutes more; up to an hour is not unusual.')],
    },
  ];
}

/** A tube that is cut: soak, measure, cut, measure again. */
function byRestrictor(stage: MembraneStage, around: Around): StepEntry[] {
  const soak: StepEntry = {
    id: around.first ? 'saturate' : `saturate-${stage.id}`,
    act: 'soak',
    place: 'setting',
    title: 'Run one hour',
    how: 'A dry membrane makes little. An hour lets it settle; who measures after ten minutes cuts for a state that passes, and measures again the day after.',
    minutes: 60,
    waits: true,
    cautions: [FLOOD],
  };
  // The ratio's own tool belongs to the membrane the tap drives; a second pass is read by its flows.
  if (!around.first) return [soak, flows(stage, around, `flows-${stage.id}`, `Measure the flows of ${inSentence(stage.name)}`)];
  return [
    soak,
    {
      id: 'ratio',
      act: 'ratio',
      place: 'setting',
      title: 'Measure waste and product',
      before: 'It has run for an hour; nothing holds the product back.',
      how: 'Run both lines into measuring jugs for the same time.',
      minutes: 3,
      tool: 'ratio',
      cautions: [preservative(around)],
    },
    {
      id: 'trim',
      act: 'trim',
      place: 'setting',
      tool: 'trim',
      ...(stage.restrictor.form === 'fixed'
        ? {
            title: `Hold the restrictor against ${around.wasteTarget}${THIN}:${THIN}1`,
            before: 'Waste and product were measured with this restrictor.',
            how: 'It is never cut. Far from the ratio another size is fitted, and both lines are measured again.',
            minutes: 5,
          }
        : {
            title: `Trim the restrictor to ${around.wasteTarget}${THIN}:${THIN}1`,
            before: 'Waste and product were measured at this length.',
            how: 'Cut, run ten minutes, measure again: two or three cuts, each smaller than the one before.',
            minutes: 15,
            cautions: [CUT],
          }),
    },
    {
      id: 'ratio-again',
      act: 'ratio',
      place: 'setting',
      title: 'Measure again',
      how: 'The last measurement is kept as the baseline of the ratio.',
      minutes: 3,
      tool: 'ratioAgain',
    },
    {
      id: 'product-ec',
      act: 'taste',
      place: 'setting',
      title: 'Read the product before any resin',
      how: 'A meter in the product line, or a glass filled from below that runs over.',
      minutes: 3,
      measures: [productEc(around, null)],
    },
  ];
}

/** Product, waste and pressure of a unit by its meters. */
function flows({ recycleLPerH, recycleKv }: MembraneStage, { unit }: Around, id: string, title: string): StepEntry {
  const recycled = recycleLPerH > 0 || recycleKv !== null;
  return {
    id,
    act: 'setValves',
    place: 'setting',
    title,
    how: 'Read every gauge and flow meter while nothing moves; where there is none, a jug and a clock.',
    minutes: recycled ? 20 : 5,
    measures: [
      feedPressure(unit),
      {
        id: 'productLPerH',
        label: 'Product',
        dimension: 'flowLPerH',
        ...about(unit?.permeateLPerH ?? null, FLOW_FITS),
        doubt: FLOW_DOUBT,
        because: 'solved for today, a fifth either way',
      },
      {
        id: 'wasteLPerH',
        label: 'Concentrate to the drain',
        dimension: 'flowLPerH',
        ...about(unit?.concentrateLPerH ?? null, FLOW_FITS),
        doubt: FLOW_DOUBT,
        because: 'solved for today, a fifth either way',
      },
      ...(recycled
        ? ([
            {
              id: 'recycleLPerH',
              label: 'Concentrate led back',
              dimension: 'flowLPerH',
              ...about(unit?.recycleLPerH ?? null, FLOW_FITS),
              doubt: FLOW_DOUBT,
              because: 'solved for today, a fifth either way',
            },
          ] as const)
        : []),
    ],
  };
}

/** A valve that is turned: raise the pressure slowly, read the product at its sample outlet, then bring it to its place. */
function byValve(stage: MembraneStage, valve: NonNullable<MembraneStage['valve']>, around: Around): StepEntry[] {
  const { units, unit, first } = around;
  const own = first ? '' : `-${stage.id}`;
  const sea = valve.kind === 'pressure' && valve.bar > HIGH_BAR;
  const recycled = stage.recycleLPerH > 0 || stage.recycleKv !== null;
  const target =
    valve.kind === 'pressure'
      ? formatQuantity(valve.bar, 'pressureBar', units).text
      : unit && !unit.noProduction
        ? `${Math.round(100 * unit.recovery)}${THIN}% recovery`
        : valve.kind === 'recovery'
          ? `${Math.round(100 * valve.recovery)}${THIN}% recovery`
          : 'the wanted recovery';
  return [
    {
      id: `raise${own}`,
      act: 'raisePressure',
      place: 'setting',
      title: `Close it slowly, over minutes, to ${target}`,
      before: 'The valve stands wide open and no air comes.',
      how: `A little at a time, a hand on the valve, watching gauges and flow meters; never faster than ${formatQuantity(0.7, 'pressureBar', units).text} a second.${sea ? ' Product stays on its sample outlet.' : ''}`,
      minutes: 15,
      cautions: sea ? [HIGH_PRESSURE, preservative(around)] : [FLOOD, preservative(around)],
      measures: [
        {
          ...feedPressure(unit),
          ifLow: sea
            ? 'Close the valve a little more; if it does not rise, the pump draws air or its relief valve leaks.'
            : 'Close it a little; if it does not rise, the pump is throttled or turns the wrong way.',
          ifHigh: sea
            ? 'Open the valve at once. Colder or saltier water needs more pressure for the same flow, never more than the element is rated for.'
            : 'Open it a little; a blocked waste line looks the same.',
        },
      ],
    },
    {
      id: `look-again${own}`,
      act: 'lookAgain',
      place: 'setting',
      title: 'Look at every joint again, under full pressure',
      before: 'They were dry at low pressure.',
      how: sea
        ? 'With a lamp, from a step away; a piece of card finds a fine jet. Anything wet: valve wide open, pump off, and only then a spanner.'
        : 'Dry paper round each joint. Anything wet: valve open, pump off, and only then a spanner.',
      minutes: 5,
      cautions: sea ? [HIGH_PRESSURE] : [FLOOD],
      measures: [
        seen(
          'dry',
          'Every joint is dry under pressure',
          'Valve wide open, pump off, pressure gone: then make the joint anew and begin at low pressure.',
        ),
      ],
    },
    {
      id: `taste${own}`,
      act: 'taste',
      place: 'setting',
      title: 'Read the product at its sample outlet until it is below the limit',
      before: 'The pressure stands.',
      how: sea
        ? 'Discard the first hour after preservative, then read every few minutes. Only what stays below the limit goes to the tank.'
        : 'Discard the first hour after preservative; only then does product go on.',
      minutes: 60,
      waits: true,
      cautions: sea ? [preservative(around), DRINKING] : [preservative(around)],
      measures: [productEc(around, sea ? around.mostUScm : null)],
    },
    {
      ...flows(stage, around, `valves${own}`, recycled ? 'Set the valves against each other' : 'Read pressure and flows'),
      tool: recycled ? 'valves' : null,
    },
  ];
}
/** Above this a membrane's pressure hurts by itself: seawater units, bar. */
const HIGH_BAR = 20;
