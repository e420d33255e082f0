import { readDocument, TEMPLATE_IDS, type SystemRecord } from '@yes-clear/core/file';
import { standing } from '@yes-clear/core/log';
import { systemFromTemplate } from '@yes-clear/core/template';
import { tapWater } from '@yes-clear/core/train';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { columnsOf, type DescentInput, type Drawing } from './drawing';
import { overlaps, textWidth, type Box } from './labels';
import { drawDescent } from './layout';
import { largeHeight } from './levels';
import { descentInput } from './descentInput';
import { pipeBoxes } from './words';

/** Every picture there is to see: the demonstration with its readings, and each template as it starts. */
const DEMO = new URL('../../../demo/', import.meta.url);
const NOW = '2026-11-23T10:00:00Z';
const demo: SystemRecord[] = readdirSync(DEMO)
  .filter((name) => name.endsWith('.yesclear.json'))
  .flatMap((name) => {
    const read = readDocument(readFileSync(new URL(name, DEMO), 'utf8'));
    return read.ok ? [...read.records] : [];
  });
const fresh: SystemRecord[] = TEMPLATE_IDS.map((template) => ({
  system: systemFromTemplate({ id: template, name: template, site: 's', template, at: NOW }),
  readings: [],
}));

function inputOf({ system, readings }: SystemRecord): DescentInput {
  const water = tapWater(system.source, system.instruments);
  const today = water.ok ? standing(system, readings, water.value.water, NOW) : water;
  if (!today.ok) throw new Error(today.error.message);
  return descentInput(system, today.value.report, readings, today.value.tracking);
}
function draw(input: DescentInput, width: number): Drawing {
  const columns = columnsOf(input);
  const columnWidth = Math.max(94, Math.floor((width - 118) / columns));
  return drawDescent(input, { size: 'large', width: 116 + columnWidth * columns, height: largeHeight(input), left: 116, columnWidth });
}
const boxOf = ({ x, y, text, size, bold, anchor }: Drawing['labels'][number]): Box => {
  const width = textWidth(text, size, bold);
  return { x: anchor === 'start' ? x : anchor === 'end' ? x - width : x - width / 2, y: y - size * 0.8, width, height: size };
};

describe.each([...demo, ...fresh].map((record) => [record.system.name, record] as const))('the picture of %s', (_name, record) => {
  const input = inputOf(record);
  it.each([918, 1244, 700])('at %i px: no word touches another, a vessel, a line or a probe', (width) => {
    const drawing = draw(input, width);
    const words = drawing.labels.map((label) => ({ text: label.text, box: boxOf(label) }));
    const touching = words.flatMap(({ text, box }, i) => [
      ...words.slice(i + 1).flatMap((other) => (overlaps(box, other.box) ? [`${text} on ${other.text}`] : [])),
      ...drawing.vessels.flatMap((vessel) => (overlaps(box, vessel.box) ? [`${text} on the vessel ${vessel.name}`] : [])),
      ...drawing.pipes.flatMap((pipe) =>
        pipeBoxes(pipe, 0).some((line) => overlaps(box, line)) ? [`${text} on the line ${pipe.id}`] : [],
      ),
    ]);
    expect(touching).toEqual([]);
  });
});
