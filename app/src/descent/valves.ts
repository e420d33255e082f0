import type { DescentInput, Pipe, ValveMark, Vessel } from './drawing';

/** Half the size of a valve as it is drawn, px. */
export const VALVE_PX = 9;
/** Room between a valve and what it stands beside, px. */
const BESIDE = 16;

/** Where the valves of the picture stand: on the line that each of them opens and shuts. */
export function valveMarks(
  { valves = [], stages }: Pick<DescentInput, 'valves' | 'stages'>,
  vessels: readonly Vessel[],
  pipes: readonly Pipe[],
): ValveMark[] {
  const membrane = stages.findIndex(({ kind }) => kind === 'membrane');
  const pipe = (id: string | undefined): Pipe | undefined => pipes.find((one) => one.id === id);
  const after = (at: number): Pipe | undefined => pipe(at + 1 < stages.length ? `to-${stages[at + 1]!.id}` : 'out');
  const along = (line: Pipe | undefined, px: number): { x: number; y: number } | null => {
    const [from, to] = [line?.points[0], line?.points.at(-1)];
    if (!from || !to) return null;
    return px >= 0 ? { x: Math.min(to[0], from[0] + px), y: from[1] } : { x: Math.max(from[0], to[0] + px), y: to[1] };
  };
  const spot = (on: ValveMark['on']): { x: number; y: number } | null => {
    switch (on) {
      case 'feed':
        return along(pipe(stages[0] && `to-${stages[0].id}`), BESIDE);
      case 'pump': {
        const pump = vessels.find(({ kind }) => kind === 'pump');
        return pump ? { x: pump.box.x + pump.box.width / 2, y: pump.box.y + pump.box.height / 2 } : null;
      }
      case 'membrane':
        return along(pipe(`to-${stages[Math.max(membrane, stages.length > 1 && membrane < 0 ? 1 : 0)]!.id}`), -BESIDE);
      case 'waste':
        return along(pipe('waste'), -BESIDE);
      case 'product':
        return along(after(membrane), -BESIDE);
      case 'outlet':
        return along(pipe('out'), -BESIDE);
    }
  };
  return valves.flatMap((valve) => {
    const at = spot(valve.on);
    return at ? [{ ...valve, ...at }] : [];
  });
}
