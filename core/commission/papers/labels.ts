import type { TrainReport } from '../../advice';
import { allStages, type System } from '../../file';
import { DAY_MS, formatQuantity, inSentence, words, atStart } from '../../quantity';
import type { Stage } from '../../stage';
import { tubeLines } from '../plumbing';
import type { Label, Paper } from './blocks';
import { dueSays } from './dueSays';

const after = (day: string, days: number): string => new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY_MS).toISOString().slice(0, 10);

/** What a piece's label says of its next change. */
function dueLines(system: System, stage: Stage, report: TrainReport): string[] {
  const fitted = 'fittedOn' in stage ? stage.fittedOn : null;
  const say = words(system.units);
  const lines = report.lives
    .filter((life) => life.stage.id === stage.id)
    .flatMap((life) => {
      const { days, litres } = dueSays(life, system.units);
      const by = days === null ? [] : [fitted === null ? `every ${say.days(days)}` : `by ${after(fitted, days)}`];
      const when = [...by, ...(litres === null ? [] : [`after ${litres}`])];
      return when.length === 0 ? [] : [`${atStart(life.says)} ${when.join(' or ')}`];
    });
  return [fitted === null ? 'Fitted ____________' : `Fitted ${fitted}`, ...lines];
}

/** Labels for what is changed, each with the code of its system, and for every line of tubing. */
export function labels(system: System, report: TrainReport): Paper {
  const pieces = allStages(system.train).filter((stage) => 'fittedOn' in stage);
  const { colours } = system.build;
  const stuck: Label[] = [
    ...pieces.map((stage): Label => ({
      title: stage.name,
      lines: [`${system.name}, ${system.site}`, ...dueLines(system, stage, report)],
      qr: true,
      colour: null,
    })),
    ...tubeLines(system, report.solved).map((line): Label => ({
      title: `${line.letter} ${line.carries}`,
      lines: [
        `${line.size.name}, ${formatQuantity(line.lengthMm, 'lengthMm', system.units).text}${line.measured ? '' : ' usual'}`,
        ...(line.holds ? [inSentence(line.holds)] : []),
      ],
      qr: false,
      colour: colours[line.carries],
    })),
  ];
  return { key: 'labels', name: 'Labels', blocks: [{ kind: 'labels', labels: stuck }] };
}
