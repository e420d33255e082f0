import type { System, Work, WorkKind } from '../file';
import type { Place, Step } from '../stage';
import type { Expected } from './expected';
import { newBuild, type Asked } from './newBuild';
import { bringBack, putAway } from './storing';
import { partChange, upgrade } from './upgrade';
import { openWork } from './work';

export interface RunbookSection {
  readonly place: Place;
  readonly title: string;
  readonly steps: readonly Step[];
}

/** Kinds of work as they are spoken of. */
export const WORK_LABELS: Readonly<Record<WorkKind, string>> = {
  newBuild: 'New build',
  upgrade: 'Upgrade',
  partChange: 'Change of a part',
  putAway: 'Put away',
  bringBack: 'Bring back',
};

const TITLES: Readonly<Record<Place, string>> = {
  shutDown: 'Shut down',
  connect: 'Place and connect',
  pressure: 'Pressure',
  rinse: 'Rinse',
  membrane: 'Membrane',
  setting: 'Set it',
  cartridges: 'Cartridges',
  resin: 'Resin',
  store: 'Tank',
  running: 'Run',
  meters: 'Meters',
  handOver: 'Hand over',
};

/** Which work a runbook is for. */
export type WorkAsked = Pick<Work, 'kind' | 'stageId'>;
const NEW: WorkAsked = { kind: 'newBuild', stageId: null };

function asked(system: System, work: WorkAsked, expected: Expected | null): Asked[] {
  switch (work.kind) {
    case 'newBuild':
      return newBuild(system, expected);
    case 'upgrade':
      return system.build.commissioned ? upgrade(system, system.build.commissioned.train, expected) : newBuild(system, expected);
    case 'partChange':
      return work.stageId === null ? [] : partChange(system, work.stageId, expected);
    case 'putAway':
      return putAway(system);
    case 'bringBack':
      return bringBack(system, expected);
  }
}

/**
 * The order of work for a train, generated from its stages and never a fixed list.
 *
 * @param work what is done; the open piece of work, or a new build where there is none
 * @param expected the train as it should run today; without it no step is held against a prediction
 */
export function runbook(system: System, expected: Expected | null = null, work: WorkAsked = openWork(system) ?? NEW): RunbookSection[] {
  const steps = asked(system, work, expected).map((one) => one.step);
  const resin = steps.some(({ act }) => act === 'pack' || act === 'resinOut');
  const sections: { place: Place; steps: Step[] }[] = [];
  for (const step of steps) {
    const last = sections.at(-1);
    if (last?.place === step.place) last.steps.push(step);
    else sections.push({ place: step.place, steps: [step] });
  }
  const held = (section: { readonly steps: readonly Step[] }): boolean => section.steps.some(({ act }) => act === 'trim');
  return sections.map((section) => ({
    ...section,
    title:
      section.place === 'setting' && held(section)
        ? 'Set the ratio'
        : section.place === 'rinse' && resin
          ? 'Rinse, resin out'
          : TITLES[section.place],
  }));
}

/** All steps in order. */
export const runbookSteps = (sections: readonly { readonly steps: readonly Step[] }[]): Step[] =>
  sections.flatMap((section) => section.steps);
