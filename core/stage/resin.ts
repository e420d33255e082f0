import { z } from 'zod';
import {
  bedCapacityEq,
  bedPressureBar,
  bedUtilisation,
  floorOf,
  ionicLoad,
  measuredFloor,
  outletOf,
  polishedWater,
  RESIN_CLASSES,
  RESIN_ROWS,
  slowestFlowLPerH,
  type Bed,
  type PolishFloor,
} from '../exchange';
import { between, formatQuantity, inSentence, maybe, measured, ok, percent, words, type UnitPreference } from '../quantity';
import { settleWater } from '../water';
import { CARTRIDGE_SIZED_L, HOUSING_BAR, VESSEL_BAR, vesselThread } from './cartridge';
import { keysOf } from './field';
import {
  allPasses,
  anyStage,
  asFitted,
  defineStage,
  fitted,
  neverOpen,
  none,
  zero,
  type ResinState,
  keepsAll,
  holdsNothing,
  threaded,
} from './kind';
import { HEAVY, seen } from './step';
import { vesselFor } from './prices';

const equivalents = between(0, 100_000);
const schema = z.strictObject({
  kind: z.literal('resin'),
  ...anyStage,
  resinClass: z.enum(RESIN_CLASSES),
  volumeL: measured('volumeL', 0.05, 1000),
  depthMm: measured('lengthMm', 50, 3000),
  packing: measured('fraction', 0.5, 1),
  /** What it had taken up before it came to this place. */
  carriedEq: z.strictObject({ cation: equivalents, anion: equivalents }),
  /** What it leaves when it is rinsed and fresh, as measured; null where its kind speaks for it. */
  floorUScm: maybe(measured('conductivityUScm', 0.055, 20)),
  ...fitted,
});
type Resin = z.infer<typeof schema>;
const field = keysOf<Resin>(schema.shape);
const CLASSES = RESIN_CLASSES.map((value) => ({ title: RESIN_ROWS[value].label, value }));

/** Depth of resin in what it is sold in, mm: cartridges, and vessels of so many litres (common practice). */
export const usualDepthMm = (litres: number): number =>
  litres <= 0.7 ? 220 : litres <= 2 ? 440 : litres <= 8 ? 400 : litres <= 12 ? 450 : litres <= 26 ? 700 : 800;
/** Sizes as they are printed on what is bought, by litres of resin (common practice). */
const SOLD: readonly (readonly [title: string, litres: number])[] = [
  ['Cartridge, 10 in', 0.6],
  ['Cartridge, 20 in', 1.2],
  ['Vessel, 7 L', 7],
  ['Vessel, 11 L', 11],
  ['Vessel, 25 L', 25],
  ['Vessel, 40 L', 40],
];
const OWN_SIZE = 'own';
const isSold = ({ volumeL, depthMm }: Pick<Resin, 'volumeL' | 'depthMm'>, litres: number): boolean =>
  volumeL === litres && depthMm === usualDepthMm(litres);

/** Colour that is left, as it is read off: half an inch, or a centimetre. */
const COLOUR_READ = {
  in: { mm: 12.7, says: 'Half an inch of colour left' },
  other: { mm: 10, says: 'A centimetre of colour left' },
} as const;
/** What a strip of fresh colour is worth: its share of the bed, and litres of the side that ends first. */
function colourLeft(stage: Resin, { feed }: ResinState, units: UnitPreference): readonly (readonly [string, string])[] {
  if (!RESIN_ROWS[stage.resinClass].colours) return [];
  const { mm, says } = units.length === 'in' ? COLOUR_READ.in : COLOUR_READ.other;
  const share = Math.min(1, mm / stage.depthMm);
  const load = ionicLoad(feed);
  const { cationEq, anionEq } = bedCapacityEq(stageBed(stage));
  const litres = Math.min(
    load.cationMeqL > 0 ? (1000 * cationEq) / load.cationMeqL : Infinity,
    load.anionMeqL > 0 ? (1000 * anionEq) / load.anionMeqL : Infinity,
  );
  const worth = Number.isFinite(litres) ? `, about ${words(units).about(share * litres, 'volumeL')} of this water` : '';
  return [[says, `${percent(share)} of it${worth}`]];
}

/** The bed of a resin stage as the exchange room takes it. */
export const stageBed = ({
  resinClass,
  volumeL,
  depthMm,
  packing,
}: Pick<Resin, 'resinClass' | 'volumeL' | 'depthMm' | 'packing'>): Bed => ({
  resin: resinClass,
  volumeL,
  depthMm,
  packing,
});

/** What a resin never gets below: as it was measured, or by its kind. */
export function resinFloor(
  { resinClass, volumeL, floorUScm }: Pick<Resin, 'resinClass' | 'volumeL' | 'floorUScm'>,
  inLoop: boolean,
): PolishFloor {
  const floor = floorOf(resinClass, volumeL, inLoop);
  return floorUScm === null ? floor : measuredFloor(floor, floorUScm);
}

/** Bed volumes after filling or a night's rest in which its floor stands higher, and how much (product assumptions). */
const RINSE_BEDS = 5;
const RINSE_FLOOR = 5;

/** Conductivity of the first bed volumes after filling or a night's rest, µS/cm. */
function afterRest({ resinClass, ...stage }: Resin, { feed, utilisation }: ResinState): number {
  const floor = resinFloor({ resinClass, ...stage }, false);
  const raised: PolishFloor = {
    saltUmolL: RINSE_FLOOR * floor.saltUmolL,
    carbonUmolL: RINSE_FLOOR * floor.carbonUmolL,
    silicaMgL: RINSE_FLOOR * floor.silicaMgL,
    ammoniaMgL: RINSE_FLOOR * floor.ammoniaMgL,
    sodiumMgL: RINSE_FLOOR * floor.sodiumMgL,
  };
  const settled = settleWater(polishedWater(feed, resinClass, utilisation, { cation: 0, anion: 0 }, raised));
  return settled.ok ? settled.value.ec25UScm : Number.NaN;
}

/** Rinsed is what reads at most so many times what it will read (our judgement: meters differ by a third near 0). */
const RINSED = 2;
/** A vessel this large is lifted with care (common practice), L. */
const HEAVY_L = 5;

export const resin = defineStage(schema, {
  kind: 'resin',
  label: 'Resin',
  says: 'Takes the last of the salt',
  place: 9,
  defaults: {
    kind: 'resin',
    name: 'Resin',
    resinClass: 'colourMixedBed',
    volumeL: 0.6,
    depthMm: 220,
    packing: 0.9,
    carriedEq: { cation: 0, anion: 0 },
    floorUScm: null,
    fittedOn: null,
  },
  form: 'vessel',
  touches: () => 'minerals',
  prefilter: false,
  inUses: false,
  holdsScale: holdsNothing,
  treat: (stage, { water, flowLPerH, use, inLoop }) => {
    const bed = stageBed(stage);
    const utilisation = bedUtilisation(bed, Math.max(flowLPerH, slowestFlowLPerH(bed, water.temperatureC)), water.temperatureC);
    if (!utilisation.ok) return utilisation;
    const capacity = bedCapacityEq(bed);
    const shareOf = (eq: number | undefined, of: number): number => (of > 0 ? (eq ?? 0) / of : 0);
    const cationUsed = shareOf(use.cationEq, capacity.cationEq);
    const anionUsed = shareOf(use.anionEq, capacity.anionEq);
    return ok({
      water: polishedWater(
        water,
        stage.resinClass,
        utilisation.value,
        { cation: cationUsed, anion: anionUsed },
        resinFloor(stage, inLoop),
        use.life ? outletOf(use.life.of, use.life.litres) : null,
      ),
      resin: { stageId: stage.id, utilisation: utilisation.value, usedShare: Math.max(cationUsed, anionUsed), feed: water },
    });
  },
  slopeBar: (stage, flowLPerH, temperatureC) => (flowLPerH > 0 ? bedPressureBar(stageBed(stage), flowLPerH, temperatureC) / flowLPerH : 0),
  riseBar: zero,
  holdsBar: ({ volumeL }) => (volumeL < CARTRIDGE_SIZED_L ? HOUSING_BAR : VESSEL_BAR),
  breaksPressure: neverOpen,
  mounting: ({ volumeL }) => ({ wetKg: 0.8 + 1.25 * volumeL, wallM: volumeL < 3 ? 0.14 : 0.3 }),
  price: ({ volumeL }, { resinPerL }) => volumeL * resinPerL,
  costLine: 'resin',
  drainShare: zero,
  keeps: keepsAll,
  powerW: zero,
  chemicals: none,
  buys: ({ volumeL }, { piece }) => piece(vesselFor(volumeL)),
  worn: asFitted,
  renewed: (stage) => ({ ...stage, carriedEq: { cation: 0, anion: 0 } }),
  dirtPassed: allPasses,
  steps: ({ id, name, volumeL }, { first, standing, meterStepUScm, side }) => {
    const expected = standing?.after.state.ec25UScm ?? null;
    return [
      {
        id: `resin-${id}`,
        act: 'pack',
        place: 'resin',
        title: `Pack and fit ${inSentence(name)}`,
        before: side === 'alone' ? null : 'The preservative is flushed out and the ratio stands.',
        how: 'Fill it tight and tap it down: loose resin lets water slip by. Leave no air above it.',
        minutes: 10,
        cautions: volumeL >= HEAVY_L ? [HEAVY] : [],
        measures: [seen('tight', 'Tight: nothing moves when it is shaken', 'Open it, add resin, tap it down again.')],
      },
      {
        id: `rinse-${id}`,
        act: 'rinse',
        place: 'resin',
        title: `Rinse ${inSentence(name)} to 0`,
        before: 'It is packed; its outlet leads to the drain.',
        how: first ? 'To the drain until the meter stands still at 0.' : 'Alone, to the drain, after the one before reads 0.',
        minutes: 10,
        waits: true,
        measures: [
          {
            id: 'ec',
            label: `Meter behind ${inSentence(name)}`,
            dimension: 'conductivityUScm',
            expected,
            low: null,
            high: expected === null ? meterStepUScm : Math.max(RINSED * expected, meterStepUScm),
            doubt: { share: 0.03, least: meterStepUScm / 2 },
            because: 'rinsed and fresh on the water before it, or the smallest step of your meter',
            ifHigh:
              'Still falling: rinse on. Standing still: loose resin, or a probe with air at its pins. Pack it again, bleed the probe, read again.',
          },
        ],
      },
    ];
  },
  plumbed: ({ volumeL }) => threaded(vesselThread(volumeL)),
  tools: none,
  partGroup: 'resin',
  parts: ({ resinClass, volumeL }, { prices }) => [
    {
      part: `resin-${resinClass}`,
      name: RESIN_ROWS[resinClass].label,
      why: 'fills the vessel, packed',
      count: volumeL,
      unit: 'L',
      each: prices.resinPerL,
    },
    volumeL < CARTRIDGE_SIZED_L
      ? { part: 'refillable-cartridge', name: 'Refillable cartridge in its housing', why: 'holds the resin', count: 1 }
      : { part: `vessel-${volumeL}`, name: 'Resin vessel with its head', why: 'holds the resin', count: 1 },
  ],
  // When it is spent the log's own tracking says.
  upkeep: none,
  faults: () => ['resinSpent', 'resinChannel', 'co2Early', 'acidBand', 'silicaBand', 'airUptake', 'organics'],
  wears: null,
  raises: ['resinChannel', 'resinPoisoned'],
  findings: none,
  facts: ({ resin: state, worn, units }) => {
    if (!state) return [];
    const left = colourLeft(worn, state, units);
    const share = (value: number): string => formatQuantity(value, 'fraction', units).text;
    return [
      ...left,
      ['Capacity usable, anion side', share(state.utilisation.anion.utilisation)],
      ['Capacity usable, cation side', share(state.utilisation.cation.utilisation)],
      ['Taken up so far', share(Math.min(1, state.usedShare))],
      [
        `First ${formatQuantity(RINSE_BEDS * worn.volumeL, 'volumeL', units).text} after filling or a night`,
        `about ${words(units).water(afterRest(worn, state))}`,
      ],
    ];
  },
  fill: ({ resinLeft }) => (resinLeft === null ? 0 : 1 - resinLeft),
  fields: (stage) => ({
    choices: [
      field.choice(stage, 'resinClass', 'Resin', CLASSES),
      {
        label: 'As it is sold',
        items: [...SOLD.map(([title, litres]) => ({ title, value: String(litres) })), { title: 'A size of its own', value: OWN_SIZE }],
        value: String(SOLD.find(([, litres]) => isSold(stage, litres))?.[1] ?? OWN_SIZE),
        write: (value) => ({
          stage: value === OWN_SIZE ? stage : { ...stage, volumeL: Number(value), depthMm: usualDepthMm(Number(value)) },
        }),
      },
    ],
    quantities: [
      field.quantity(stage, 'volumeL', 'Volume of resin', { unit: 'L' }),
      field.quantity(stage, 'depthMm', 'Depth of the bed', { unit: 'cm' }),
      field.quantity(stage, 'packing', 'Packing (90 tight, 75 loose)', { unit: '%' }),
      field.quantity(stage, 'floorUScm', 'Reads when rinsed and fresh', {
        unit: 'µS/cm',
        folded: true,
        empty: 'as its kind does',
      }),
    ],
  }),
  folded: 'More',
});
