/**
 * A smooth curve through points that goes up and down only where they do: monotone cubic by harmonic-mean slopes
 * (Fritsch and Butland 1984, recalled).
 *
 * @param x ascending, at least two
 * @returns the curve; outside of its points it stays at the last one
 */
export function monotoneCurve(x: readonly number[], y: ArrayLike<number>): (at: number) => number {
  const n = x.length;
  const h = Array.from({ length: n - 1 }, (_, i) => x[i + 1]! - x[i]!);
  const chord = h.map((step, i) => (y[i + 1]! - y[i]!) / step);
  const slope = x.map((_, i) => {
    if (i === 0) return endSlope(h[0]!, h[1] ?? h[0]!, chord[0]!, chord[1] ?? chord[0]!);
    if (i === n - 1) return endSlope(h[n - 2]!, h[n - 3] ?? h[n - 2]!, chord[n - 2]!, chord[n - 3] ?? chord[n - 2]!);
    const [before, after] = [chord[i - 1]!, chord[i]!];
    if (before * after <= 0) return 0;
    const [w1, w2] = [2 * h[i]! + h[i - 1]!, h[i]! + 2 * h[i - 1]!];
    return (w1 + w2) / (w1 / before + w2 / after);
  });
  return (at) => {
    if (at <= x[0]!) return y[0]!;
    if (at >= x[n - 1]!) return y[n - 1]!;
    let i = 0;
    while (at > x[i + 1]!) i += 1;
    const t = (at - x[i]!) / h[i]!;
    const [t2, t3] = [t * t, t * t * t];
    return (
      (2 * t3 - 3 * t2 + 1) * y[i]! +
      (t3 - 2 * t2 + t) * h[i]! * slope[i]! +
      (3 * t2 - 2 * t3) * y[i + 1]! +
      (t3 - t2) * h[i]! * slope[i + 1]!
    );
  };
}

/** Slope at an end from three points, held back where it would overshoot. */
function endSlope(h0: number, h1: number, chord0: number, chord1: number): number {
  const slope = ((2 * h0 + h1) * chord0 - h0 * chord1) / (h0 + h1);
  if (slope * chord0 <= 0) return 0;
  return chord0 * chord1 <= 0 && Math.abs(slope) > 3 * Math.abs(chord0) ? 3 * chord0 : slope;
}
