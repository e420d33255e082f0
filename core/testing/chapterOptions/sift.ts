import { runToEnd } from '../../numeric';
import { sift, type Found, type Sifted } from '../../choice';
import { figuresOf } from './figures';
import type { Space } from './jobs';
import { judgePlan } from './judge';
import type { Judging } from './judging';
import type { RuleId } from './rules';

/** The product's own search over options that are judged by the chapter's arithmetic. */

export type ChapterSifted = Sifted<RuleId>;
export const siftPart = (spaces: readonly Space[], judging: Judging, part: number, parts: number): ChapterSifted =>
  runToEnd(
    sift<Space, RuleId>(
      spaces,
      ({ id, space, choice }) => {
        const plan = space.planOf(choice);
        const judged = judgePlan(plan, judging);
        if (!judged.admissible) return { rejection: judged.rejection };
        const { annualCost, visitsPerYear, winterMargin, capital, wasteL, widthMm } = figuresOf(plan, judging)!;
        const advisories = judged.advisories.length;
        const found: Found = { id, route: plan.route, annualCost, advisories, visitsPerYear, winterMargin, capital, wasteL, widthMm };
        return { found };
      },
      part,
      parts,
    ),
  );
export const siftAll = (spaces: readonly Space[], judging: Judging): ChapterSifted => siftPart(spaces, judging, 0, 1);
