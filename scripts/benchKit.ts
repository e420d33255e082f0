/** What every benchmark needs. */

export interface Row {
  readonly what: string;
  readonly median: number;
  readonly unit: string;
  readonly limit: number | null;
  readonly note: string;
}

export const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? Number.NaN;

/** Median time of one call in ms, after a warm-up. */
export function time(call: () => unknown, runs: number): number {
  for (let i = 0; i < runs; i++) call();
  return median(
    Array.from({ length: runs }, () => {
      const start = performance.now();
      call();
      return performance.now() - start;
    }),
  );
}

export function must<T>(outcome: { ok: true; value: T } | { ok: false; error: { message: string } }): T {
  if (!outcome.ok) throw new Error(outcome.error.message);
  return outcome.value;
}
