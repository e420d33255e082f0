import { feedPump, type Train } from '../file';
import type { StageOf, TrainUse } from '../stage';
import { pumpOutletBar, type UnitSolution } from '../membrane';
import { fail, ok, type Outcome } from '../quantity';
import { eachSolute, SOLUTES, type Water } from '../water';
import { onePass } from './onePass';
import type { Inlet } from './pressure';
import type { SolvedTrain } from './solved';
import { NOTHING_KNOWN, type Beforehand, type Returned } from './throughMembrane';

/** Trains with two membranes: the product of the first is the feed of the second. */

/** No housing here stands more. */
const MOST_BAR = 69;

/** Rounds in which waste led back to the first pass settles, and how near counts as settled. */
const RETURN_ROUNDS = 30;
const RETURN_SETTLED = 2e-7;
/** Traces below this are settled when they stand this near, mg/L. */
const TRACE_MG_L = 1e-3;

/** Two passes; where the second's waste is led back before the first one's pump, what comes back is found in rounds. */
export function twoPasses(train: Train, inlet: Inlet, feed: Water, use: TrainUse): Outcome<SolvedTrain> {
  const second = train.stages.findLast((stage): stage is StageOf<'membrane'> => stage.kind === 'membrane')!;
  if (!second.wasteToFirstPass) return onceThroughBoth(train, inlet, feed, use, NOTHING_KNOWN, undefined);
  const pump = feedPump(train.stages);
  if (!pump)
    return fail(
      'wasteToFirstPass',
      'true',
      'a pump before the first membrane',
      `The waste of ${second.name} can only go back to the suction of a pump: the line before the first membrane is under pressure. Add a pump there, or send it to the drain.`,
    );
  const suction = train.stages.indexOf(pump);
  let known = NOTHING_KNOWN;
  let near: UnitSolution | undefined;
  for (let round = 0; round < RETURN_ROUNDS; round++) {
    const solved = onceThroughBoth(train, inlet, feed, use, known, near);
    if (!solved.ok || !solved.value.secondPass || !solved.value.unit) return solved;
    const { unit, runShare } = solved.value.secondPass;
    const back: Returned = { water: unit.concentrate, flowLPerH: unit.concentrateLPerH * runShare };
    if (unlike(known.returned, back) < RETURN_SETTLED) return solved;
    const fresh = solved.value.stations[suction]!.water;
    known = { returned: ahead(known.returned, back, fresh, solved.value.unit.feedLPerH), near: solved.value.unit, feedsAnother: true };
    near = unit;
  }
  return fail(
    'wasteToFirstPass',
    'true',
    'two passes that settle',
    'What is led back to the first pass does not settle: send it to the drain.',
  );
}

/**
 * What will come back once it has come round: each solute leaves the second pass in proportion to what it was in the
 * mixture that entered the first, `c = ρ·F_fresh·c_fresh/(F − R·ρ)`.
 *
 * @param was what came back while this was solved
 * @param back what leaves the second pass then
 */
function ahead(was: Returned, back: Returned, fresh: Water, feedLPerH: number): Returned {
  const { water } = back;
  if (!water) return back;
  const freshLPerH = feedLPerH - back.flowLPerH;
  const next = (of: (w: Water) => number): number => {
    const mixed = ((feedLPerH - was.flowLPerH) * of(fresh) + was.flowLPerH * (was.water ? of(was.water) : 0)) / feedLPerH;
    if (!(mixed > 0) || freshLPerH <= 0) return of(water);
    const ratio = of(water) / mixed;
    const left = feedLPerH - back.flowLPerH * ratio;
    return left > 0 ? (ratio * freshLPerH * of(fresh)) / left : of(water);
  };
  return {
    flowLPerH: back.flowLPerH,
    water: {
      ...water,
      mgL: eachSolute((solute) => next((w) => w.mgL[solute])),
      alkalinityMgL: next((w) => w.alkalinityMgL),
      carbonMmolL: next((w) => w.carbonMmolL),
    },
  };
}

/** How far two returned waters are apart, flow and every solute, as a share. */
function unlike(a: Returned, b: Returned): number {
  if (!a.water || !b.water) return Infinity;
  const apart = (of: (w: Water) => number, trace: number): number => Math.abs(of(a.water!) - of(b.water!)) / Math.max(trace, of(b.water!));
  return Math.max(
    Math.abs(a.flowLPerH - b.flowLPerH) / Math.max(1e-6, b.flowLPerH),
    apart((w) => w.alkalinityMgL, TRACE_MG_L),
    ...SOLUTES.map((solute) => apart((w) => w.mgL[solute], TRACE_MG_L)),
  );
}

/**
 * Two passes: the product of the first membrane is the feed of the second, lifted by its own pump. Without a tank
 * between them the second takes exactly what the first makes; from an open tank it runs at its own flow.
 */
function onceThroughBoth(
  train: Train,
  inlet: Inlet,
  feed: Water,
  use: TrainUse,
  known: Beforehand,
  nearSecond: UnitSolution | undefined,
): Outcome<SolvedTrain> {
  const first = train.stages.findIndex((stage) => stage.kind === 'membrane');
  const second = train.stages.findLastIndex((stage) => stage.kind === 'membrane');
  const cut = train.stages.findLastIndex((stage, i) => stage.kind === 'pump' && i > first && i < second);
  const pump = train.stages[cut];
  if (pump?.kind !== 'pump')
    return fail(
      'stages',
      2,
      'a pump between the two membranes',
      'The second membrane has no pump of its own: the product of the first has no pressure left. Add a pump between them, or put both elements into one stage.',
    );
  const one = onePass({ ...train, stages: train.stages.slice(0, cut) }, inlet, feed, use, { ...known, feedsAnother: true });
  if (!one.ok || !one.value.unit || one.value.unit.noProduction) return one;
  const product = one.value.stations.at(-1)!;
  const rests = train.stages.slice(first + 1, cut).some((stage) => stage.kind === 'tank' && stage.openToAir);
  const needed: StageOf<'pump'> = rests
    ? pump
    : { ...pump, pump: { kind: 'displacement', flowLPerH: one.value.productLPerH, reliefBar: MOST_BAR, energyRecovery: 0 } };
  const two = onePass(
    { ...train, stages: [needed, ...train.stages.slice(cut + 1)] },
    { linePressureBar: product.pressureBar },
    product.water,
    use,
    { ...NOTHING_KNOWN, near: nearSecond },
  );
  if (!two.ok) return two;
  const { unit } = two.value;
  if (!rests && unit) {
    const reached =
      pump.pump.kind === 'displacement' ? pump.pump.reliefBar : pumpOutletBar(pump.pump, product.pressureBar, unit.membraneFeedLPerH);
    if (unit.feedPressureBar > reached)
      return fail(
        'pump',
        Number(reached.toFixed(1)),
        `${unit.feedPressureBar.toFixed(1)} bar`,
        `${pump.name} reaches ${reached.toFixed(1)} bar at ${Math.round(unit.membraneFeedLPerH)} L/h; the second pass needs ${unit.feedPressureBar.toFixed(1)} bar. Fit a stronger pump, or open its waste.`,
      );
  }
  // A second pass behind a tank cannot go on making more than the first brings.
  const share = rests && unit ? Math.min(1, one.value.productLPerH / unit.feedLPerH) : 1;
  return ok({
    ...one.value,
    stations: [...one.value.stations, ...two.value.stations.slice(1)],
    resins: [...one.value.resins, ...two.value.resins],
    carbons: [...one.value.carbons, ...two.value.carbons],
    secondPass: unit && two.value.waste ? { unit, waste: two.value.waste, runShare: share } : null,
    productLPerH: two.value.productLPerH * share,
  });
}
