import type { Reading, System } from '../file';
import { DAY_MS, dayWords, inSentence, THIN } from '../quantity';
import type { Finding } from '../stage';
import { supplySteps, type SupplyStep } from './supplySteps';

/** A spell that is over is told for this long, days. */
const OVER_DAYS = 30;

/** Steps of the tap nobody wrote down: the supply, or the meter. */
export function tapFindings(system: System, readings: readonly Reading[], now: string): Finding[] {
  return supplySteps(system, readings).flatMap((step): Finding[] => {
    if (step.until !== null && Date.parse(now) - Date.parse(step.until) > OVER_DAYS * DAY_MS) return [];
    const by = `${Math.round(100 * Math.abs(Math.exp(step.by) - 1))}${THIN}%`;
    return [
      {
        id: `step-tap-${step.since.slice(0, 10)}`,
        severity: step.until === null ? 'mind' : 'note',
        title: `Tap reads ${by} ${step.by > 0 ? 'more' : 'less'} since ${dayWords(step.since)}`,
        why: whyOf(system, step),
      },
    ];
  });
}

function whyOf(system: System, { family, until }: SupplyStep): string {
  const meter = inSentence(
    system.instruments.find(({ id }) => id === system.train.probes.find(({ after }) => after === 'tap')?.instrumentId)?.name ?? 'the meter',
  );
  if (until !== null) return `It was back on ${dayWords(until)}: the supply changed for a while, as when works switch wells.`;
  if (family === 'supply') return 'Most likely the supply changed. Ask the supplier, and enter the tap in Water anew.';
  const check = `Read a glass of known water, or the tap with another meter; if ${meter} was changed, write it down.`;
  return family === 'meter'
    ? `The ratio is that of two meter scales: most likely ${meter} was changed or set otherwise. ${check}`
    : `Either the supply changed or ${meter}. ${check}`;
}
