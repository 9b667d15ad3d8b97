/** The ideal filter's answer, `t` in samples. */
export const sinc = (t: number): number => (t === 0 ? 1 : Math.sin(Math.PI * t) / (Math.PI * t));

/** Kaiser's window at a part `r` of its half width; 0 outside. */
export function kaiser(r: number, beta: number): number {
  return Math.abs(r) >= 1 ? 0 : besselI0(beta * Math.sqrt(1 - r * r)) / besselI0(beta);
}

/** Modified Bessel function of the first kind, order 0, by its series. */
export function besselI0(x: number): number {
  let term = 1;
  let total = 1;
  for (let k = 1; term > 1e-12 * total; k++) {
    term *= (x / (2 * k)) ** 2;
    total += term;
  }
  return total;
}

/**
 * Filters for the points between two samples, one for each of `times - 1`; the sample itself needs none. The point lies
 * after tap `reach - 1`. Their sums are 1.
 */
export function interpolators(times: number, reach: number, beta: number): Float64Array[] {
  return Array.from({ length: times - 1 }, (_, i) => {
    const part = (i + 1) / times;
    const c = Float64Array.from({ length: 2 * reach }, (_, k) => {
      const t = k - (reach - 1) - part;
      return sinc(t) * kaiser(t / reach, beta);
    });
    const sum = c.reduce((a, b) => a + b, 0);
    return c.map((v) => v / sum);
  });
}
