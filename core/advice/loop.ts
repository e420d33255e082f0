import type { System } from '../file';
import { loopState, worstMOhmCm, type LoopState } from '../life';
import { ok, THIN, words, type Outcome } from '../quantity';
import type { Finding } from '../stage';
import type { SolvedTrain } from '../train';

/** A loop with what is to be said of it. */
export interface LoopReport extends LoopState {
  readonly findings: readonly Finding[];
}

/** @returns null where the train has no loop; an error where it cannot run */
export function loopReport(system: System, solved: SolvedTrain): Outcome<LoopReport> | null {
  const state = loopState(system, solved);
  return state?.ok ? ok({ ...state.value, findings: loopFindings(system, state.value) }) : state;
}

/** Velocities in the loop and in its return (common practice), m/s. */
const VELOCITY = { least: 1, most: 2, back: 0.6 } as const;

function loopFindings(system: System, report: LoopState): Finding[] {
  const say = words(system.units);
  const { restMOhmCm, velocityMPerS: v, returnVelocityMPerS: back, recoversH } = report;
  const worst = worstMOhmCm(report.week);
  const found: Finding[] = [
    {
      id: 'loop',
      severity: 'note',
      title: `The outlets stand at ${restMOhmCm.toFixed(1)}${THIN}MΩ·cm, ${worst.toFixed(1)} at the worst hour`,
      why: `Salt and CO₂ of the make-up and the air set it, not the polisher alone.${recoversH === null ? '' : ` With nobody drawing, the tank is polished in ${say.hours(recoversH)}.`} No meter here sees organics or germs.`,
    },
  ];
  const slow = v < VELOCITY.least;
  if (slow || v > VELOCITY.most)
    found.push({
      id: 'loop-velocity',
      severity: 'mind',
      title: `Water runs at ${v.toFixed(2)}${THIN}m/s in the loop`,
      why: slow
        ? `Below ${VELOCITY.least} a film grows on the wall. A narrower line or a larger pump.`
        : `Above ${VELOCITY.most} it costs pressure and noise. A wider line.`,
    });
  if (back < VELOCITY.back)
    found.push({
      id: 'loop-return',
      severity: 'mind',
      title: `At the largest draw the return runs at ${back.toFixed(2)}${THIN}m/s`,
      why: `Below ${VELOCITY.back} it stands nearly still. No dead legs longer than six bores, and more flow round.`,
    });
  return found;
}
