import { stageKind, type StageKind } from '@yes-clear/core/stage';
import { describe, expect, it } from 'vitest';
import { branchColumns, type DescentInput, type Drawing, type Frame } from './drawing';
import { overlaps, textWidth, type Box } from './labels';
import { drawDescent } from './layout';

const station = (after: string, ec25UScm: number): DescentInput['stations'][number] => ({
  after,
  state: { ec25UScm } as DescentInput['stations'][number]['state'],
});
const stage = (id: string, kind: StageKind, name = id): DescentInput['stages'][number] => ({ id, kind, name, form: stageKind(kind).form });
const base = {
  pressureUnit: 'bar',
  waste: null,
  recycle: null,
  bypass: null,
  secondWaste: null,
  goal: null,
  probes: [],
  fill: {},
  tapTexts: ['Tap'],
} as const;

/** A counter: two stages in the train, three uses behind the last of them. */
const counter: DescentInput = {
  ...base,
  stages: [stage('filter', 'sediment', 'Filter'), stage('carbon', 'carbon', 'Carbon')],
  stations: [station('tap', 300), station('filter', 300), station('carbon', 300), station('espresso', 250), station('icefilter', 300)],
  branches: [
    {
      id: 'a',
      after: 'carbon',
      stages: [stage('espresso', 'decarboniser', 'Espresso cartridge')],
      texts: ['Espresso · 250 µS/cm', 'Espresso'],
    },
    { id: 'b', after: 'carbon', stages: [stage('icefilter', 'carbon', 'Ice filter')], texts: ['Ice · 300 µS/cm', 'Ice'] },
    { id: 'c', after: 'carbon', stages: [], texts: ['Ovens · 300 µS/cm', 'Ovens'] },
  ],
};
const frame = (input: DescentInput, size: Frame['size'] = 'large'): Frame => {
  const columns = input.stages.length + 1 + (size === 'large' ? branchColumns(input) : 0);
  return { size, width: 116 + columns * 96, height: 338, left: 116, columnWidth: 96 };
};
const boxes = (drawing: Drawing): (Box & { readonly id: string })[] =>
  drawing.labels.map((label) => {
    const width = textWidth(label.text, label.size, label.bold);
    const x = label.anchor === 'start' ? label.x : label.anchor === 'end' ? label.x - width : label.x - width / 2;
    return { id: label.id, x, y: label.y - label.size * 0.8, width, height: label.size };
  });

describe('uses taken off the train', () => {
  const drawing = drawDescent(counter, frame(counter));
  it('a column a stage, and one for a use without any', () => expect(branchColumns(counter)).toBe(3));
  it('each stands in a lane of its own and ends at the right, with its true level marked', () => {
    expect(drawing.ends.map((end) => end.id)).toEqual(['a', 'b', 'c']);
    const [a, b, c] = drawing.ends;
    expect(new Set([a!.x, b!.x, c!.x]).size).toBe(1);
    expect(b!.laneY - a!.laneY).toBeGreaterThan(24);
    expect(c!.laneY - b!.laneY).toBeGreaterThan(24);
    // Two uses of the same water stand at the same true level, whatever their lane.
    expect(b!.trueY).toBe(c!.trueY);
    expect(a!.trueY).toBeGreaterThan(b!.trueY);
  });
  it('every line of a branch begins where it leaves the train', () => {
    const train = drawing.pipes.find((pipe) => pipe.id === 'out')!;
    for (const id of ['to-espresso', 'to-icefilter', 'out-c']) {
      const pipe = drawing.pipes.find((candidate) => candidate.id === id)!;
      expect(pipe.points[0]![1]).toBeCloseTo(train.points[0]![1], 9);
    }
  });
  it('no line of one runs through the vessel of another', () => {
    for (const vessel of drawing.vessels.filter((one) => ['espresso', 'icefilter'].includes(one.stageId)))
      for (const pipe of drawing.pipes.filter((one) => !one.id.endsWith(vessel.stageId) && one.id.startsWith('out-')))
        for (const [k, [x2, y2]] of pipe.points.slice(1).entries()) {
          const [x1, y1] = pipe.points[k]!;
          const own = pipe.id === 'out-a' ? 'espresso' : pipe.id === 'out-b' ? 'icefilter' : '';
          const line = { x: Math.min(x1, x2), y: Math.min(y1, y2) - 3, width: Math.abs(x2 - x1), height: Math.abs(y2 - y1) + 6 };
          if (own !== vessel.stageId) expect(overlaps(line, vessel.box), `${pipe.id} through ${vessel.name}`).toBe(false);
        }
  });
  it('its words cover neither each other nor a vessel', () => {
    const words = boxes(drawing);
    words.forEach((a, i) => words.slice(i + 1).forEach((b) => expect(overlaps(a, b), `${a.id} on ${b.id}`).toBe(false)));
    for (const word of words)
      for (const vessel of drawing.vessels) expect(overlaps(word, vessel.box), `${word.id} on ${vessel.name}`).toBe(false);
    expect(drawing.labels.map((label) => label.text)).toEqual(expect.arrayContaining(['Espresso · 250 µS/cm', 'Ovens · 300 µS/cm']));
  });
  it('the strip and the thumbnail show the train alone', () => {
    for (const size of ['strip', 'thumb'] as const) {
      const small = drawDescent(counter, frame(counter, size));
      expect(small.vessels.map((vessel) => vessel.stageId)).toEqual(['filter', 'carbon']);
      expect(small.ends).toEqual([]);
    }
  });
  it('a use whose place is gone is left out', () => {
    const lost = { ...counter, branches: [{ ...counter.branches![0]!, after: 'nowhere' }] };
    expect(drawDescent(lost, frame(lost)).ends).toEqual([]);
  });
});

describe('a loop', () => {
  const lab: DescentInput = {
    ...base,
    stages: [stage('tank', 'tank', 'Tank'), stage('resin', 'resin', 'Resin')],
    stations: [station('tap', 10), station('tank', 10), station('resin', 0.07)],
    loop: { to: 'tank', ec25UScm: 0.07, texts: ['1800 L/h round the loop', 'loop'] },
  };
  it('comes back along the bottom, dashed, into its tank', () => {
    const drawing = drawDescent(lab, frame(lab));
    const back = drawing.pipes.find((pipe) => pipe.id === 'loop')!;
    const tank = drawing.vessels.find((vessel) => vessel.stageId === 'tank')!.box;
    expect(back.dashed).toBe(true);
    const [out, down, along, up] = back.points;
    expect(out![0]).toBe(down![0]);
    expect(along![0]).toBe(tank.x + tank.width / 2);
    expect(up![1]).toBe(tank.y + tank.height);
    for (const vessel of drawing.vessels) expect(down![1]).toBeGreaterThan(vessel.box.y + vessel.box.height);
  });
  it('is not drawn where there is no such tank, nor in the pressure view', () => {
    const bare = { ...lab, loop: { ...lab.loop!, to: 'gone' } };
    expect(drawDescent(bare, frame(bare)).pipes.some((pipe) => pipe.id === 'loop')).toBe(false);
    const pressure = { ...lab, height: 'pressure' as const };
    expect(drawDescent(pressure, frame(pressure)).pipes.some((pipe) => pipe.id === 'loop')).toBe(false);
  });
  it('one that leaves early, from saltier water, still keeps within the picture', () => {
    const early: DescentInput = {
      ...counter,
      stages: [...counter.stages, stage('membrane', 'membrane', 'Membrane')],
      stations: [...counter.stations.slice(0, 3), station('membrane', 20), station('espresso', 18), station('icefilter', 20)],
      branches: counter.branches!.map((branch) => ({ ...branch, after: branch.id === 'c' ? 'carbon' : 'membrane' })),
    };
    const drawing = drawDescent(early, frame(early));
    for (const end of drawing.ends) expect(end.laneY).toBeLessThan(frame(early).height - 12);
    for (const vessel of drawing.vessels) expect(vessel.box.y + vessel.box.height).toBeLessThan(frame(early).height);
  });
});
