import { ok, type Outcome } from '../../quantity';
import { faultOf } from '../catalogue';
import { together } from '../nodes';
import { plainTruth, type RigChange, type Truth } from '../rig';
import { truthWith } from './instruments';
import { isMendedBy } from './repairs';
import type { BenchState, Hidden } from './state';
import { isVented, type Bench } from './systems';

/** Minutes of running after which a rest no longer shows, and a new membrane has taken up its water (product assumptions). */
export const RESTED_MINUTES = 15;
const SATURATED_MINUTES = 120;

/** What is still wrong with a rig: neither mended nor over by itself. */
export const stillHidden = ({ hidden, mended, tipsCleaned, ranMinutes }: BenchState): Hidden[] =>
  hidden.filter(({ id }) => {
    if (id === 'meterFault' && tipsCleaned) return false;
    if (id === 'creep' && ranMinutes >= RESTED_MINUTES) return false;
    if (id === 'dryMembrane' && ranMinutes >= SATURATED_MINUTES) return false;
    return !isMendedBy(mended, id);
  });

/** Flow through an open flush valve against that through the restrictor. */
const FLUSHED = 4;
/** What is left of a pump's pressure where it is set low. */
const SET_LOW = 0.7;

/** What valves, taken-out cartridges and a mixed feed change of a rig. */
function handled(change: RigChange, bench: Bench, { valves, out, feedC, saltAged }: BenchState, sound: number): RigChange {
  const opened = valves.release === 'open' && !isVented(bench.id);
  return together(
    { ...change, ...(out === 'none' ? {} : { filterShare: 0 }), ...(feedC === null ? {} : { warmerC: feedC - sound }) },
    {
      salt: saltAged,
      ...(valves.pressure === 'low' ? { pumpShare: SET_LOW } : {}),
      ...(opened ? { defects: { restrictorFlow: FLUSHED } } : {}),
    },
  );
}

/** Truths that were solved, by what they depend on. */
const SOLVED = new WeakMap<Bench, Map<string, Outcome<Truth>>>();

/** What instruments without error would show of the rig as it stands, with water running. */
export function truthOf(bench: Bench, state: BenchState): Outcome<Truth> {
  const known = SOLVED.get(bench) ?? new Map<string, Outcome<Truth>>();
  SOLVED.set(bench, known);
  const { valves, out, feedC, saltAged, errors } = state;
  const open = stillHidden(state);
  const key = JSON.stringify([open, errors, valves, out, feedC, saltAged]);
  const before = known.get(key);
  if (before) return before;
  const found = solvedTruth(bench, state, open);
  known.set(key, found);
  return found;
}

function solvedTruth(bench: Bench, state: BenchState, open: readonly Hidden[]): Outcome<Truth> {
  const { rig, shared } = bench.ground;
  const sound = soundTruth(bench);
  if (!sound.ok) return sound;
  const wrong = open.map(({ id, severity }) => ({ ...faultOf(id)!.on(rig), severity }));
  const read = truthWith(rig, wrong, state.errors, shared, (change) => handled(change, bench, state, sound.value.temperature));
  // With the line taken off at the membrane, what runs into the jug there is the product.
  return read.ok && state.valves.line === 'off' ? ok({ ...read.value, productFlow: read.value.openFlow }) : read;
}

/** What was written down at the hand-over, when nothing was wrong. */
export function soundTruth({ ground: { rig } }: Bench): Outcome<Truth> {
  const solved = rig.solve({});
  return solved.ok ? ok(plainTruth(rig, solved.value)) : solved;
}
