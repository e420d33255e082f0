import type { Kit } from '@yes-clear/core/file';

/** Drop-count kits as they are sold: what one drop stands for in the kit's own sample (common practice). */
export const DROP_KITS = [
  { key: 'degree', title: '1 drop = 1 °dH in 5 mL', mgPerDrop: 17.8, nominalSampleMl: 5 },
  { key: 'french', title: '1 drop = 1 °fH in 5 mL', mgPerDrop: 10, nominalSampleMl: 5 },
  { key: 'grain', title: '1 drop = 1 gpg in 5 mL', mgPerDrop: 17.1, nominalSampleMl: 5 },
  { key: 'twenty', title: '1 drop = 20 mg/L in 5 mL', mgPerDrop: 20, nominalSampleMl: 5 },
  { key: 'own', title: 'Another kit', mgPerDrop: null, nominalSampleMl: 5 },
] as const;

/** The kit a count was made with. */
export function kitOf(count: NonNullable<Kit['hardnessCount']>): string {
  return DROP_KITS.find((row) => row.mgPerDrop === count.mgPerDrop && row.nominalSampleMl === count.nominalSampleMl)?.key ?? 'own';
}
