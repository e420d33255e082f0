import { trainTitle, type TrainReport } from '../../advice';
import { allStages, type System } from '../../file';
import { atStart, formatQuantity, inSentence, listed } from '../../quantity';
import { countText, FLOOD, HEAVY, HIGH_PRESSURE, LOCAL_CODE, MAINS, type Caution } from '../../stage';
import { GROUP_LABELS, partsOf, standsSays, toolsSays } from '../parts';
import { tubeLines, type TubeLine } from '../plumbing';
import { isBoat } from '../hanging';
import type { Paper } from './blocks';

/** Which ports a line joins, in words. */
export function lineSays(system: System, line: TubeLine): string {
  const stages = allStages(system.train);
  const names = line.ends.map(({ at, port }) => {
    const stage = stages.find(({ id }) => id === at);
    if (stage) return stage.kind === 'membrane' ? `${port} of ${inSentence(stage.name)}` : inSentence(stage.name);
    if (at.startsWith('use')) return 'where it is drawn';
    return at.startsWith('blend') ? 'the blend valve' : at;
  });
  return listed([...new Set(names)]);
}

/** Cautions the build itself asks for. */
function cautionsOf(system: System): Caution[] {
  const pumped = system.train.stages.some(({ kind }) => kind === 'pump');
  return [LOCAL_CODE, FLOOD, HEAVY, ...(pumped ? [MAINS] : []), ...(isBoat(system) ? [HIGH_PRESSURE] : [])];
}

/** Colours of the tubing as far as somebody has said. */
function coloursSay(colours: System['build']['colours']): string {
  const said = (['feed', 'product', 'waste'] as const).flatMap((line) => (colours[line] === null ? [] : [`${line} ${colours[line]}`]));
  return said.length === 0 ? 'Lines by their letters. ' : `${atStart(said.join(', '))}. `;
}

/** The build sheet: what goes where, cut to which length. */
export function buildSheet(system: System, report: TrainReport, on: string): Paper {
  const lines = tubeLines(system, report.solved);
  const parts = partsOf(system, report.solved).filter(({ group }) => group !== 'spares');
  const { colours } = system.build;
  return {
    key: 'buildSheet',
    name: 'Build sheet',
    blocks: [
      { kind: 'title', text: `${system.name}: build sheet`, under: `${system.site} · ${on} · ${standsSays(system).text}` },
      { kind: 'picture', of: 'descent', says: trainTitle(system, report) },
      {
        kind: 'picture',
        of: 'drawing',
        says: `${coloursSay(colours)}Feed enters a membrane alone at its cap end; product leaves at the centre, waste beside it.`,
      },
      { kind: 'heading', text: 'Cut list' },
      {
        kind: 'table',
        head: ['Line', 'Joins', 'Tube', 'Colour', 'Length'],
        rows: lines.map((line) => [
          line.letter,
          `${lineSays(system, line)}${line.holds ? `; ${line.holds}` : ''}`,
          line.size.name,
          colours[line.carries] ?? '–',
          `${line.measured ? '' : '~'}${formatQuantity(line.lengthMm, 'lengthMm', system.units).text}`,
        ]),
        right: [4],
      },
      ...(lines.some(({ measured }) => !measured)
        ? [{ kind: 'text' as const, quiet: true, text: 'A length with ~ is a usual one: measure it on site before it is cut.' }]
        : []),
      { kind: 'heading', text: 'Parts' },
      {
        kind: 'table',
        head: ['', 'Part', 'Why this many', 'Count'],
        rows: parts.map((one, i) => [parts[i - 1]?.group === one.group ? '' : GROUP_LABELS[one.group], one.name, one.why, countText(one)]),
        right: [3],
      },
      { kind: 'heading', text: 'Tools' },
      {
        kind: 'text',
        text: toolsSays(system),
      },
      { kind: 'heading', text: 'Mind' },
      ...cautionsOf(system).map(({ title, text }) => ({ kind: 'caution' as const, title, text })),
    ],
  };
}
