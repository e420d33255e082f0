import { kindOf, type Mounting, type Stage } from '../stage';

/** Weight of a train full of water, tanks apart, and the wall it takes: what studs must hold. */
export function mounting(stages: readonly Stage[]): Mounting & { readonly tankKg: number } {
  const all = stages.map((stage) => ({ stands: kindOf(stage).form === 'tank', ...kindOf(stage).mounting(stage) }));
  const sum = (of: 'wetKg' | 'wallM', stands: boolean): number =>
    all.reduce((total, one) => total + (one.stands === stands ? one[of] : 0), 0);
  return { wetKg: sum('wetKg', false), wallM: sum('wallM', false), tankKg: sum('wetKg', true) };
}
