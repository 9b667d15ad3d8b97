/** A value known only within limits. `low <= nominal <= high`; the unit is the owner's. */
export interface Interval {
  readonly low: number;
  readonly nominal: number;
  readonly high: number;
}

/** An interval of width zero. */
export const exactly = (value: number): Interval => ({ low: value, nominal: value, high: value });

/** @throws RangeError when the three are not in order, or not finite. */
export function interval(low: number, nominal: number, high: number): Interval {
  if (!(low <= nominal && nominal <= high) || !Number.isFinite(low) || !Number.isFinite(high)) {
    throw new RangeError(`An interval needs low <= nominal <= high; got ${low}, ${nominal}, ${high}.`);
  }
  return { low, nominal, high };
}

/** Sums add limits to limits: the worst case, not a likely one. */
export const add = (a: Interval, b: Interval): Interval => ({
  low: a.low + b.low,
  nominal: a.nominal + b.nominal,
  high: a.high + b.high,
});

export const negate = (a: Interval): Interval => ({ low: -a.high, nominal: -a.nominal, high: -a.low });

/** `a` minus `b`, both unknown and independent: limits widen. */
export const subtract = (a: Interval, b: Interval): Interval => add(a, negate(b));

export const scale = (a: Interval, factor: number): Interval =>
  factor >= 0
    ? { low: a.low * factor, nominal: a.nominal * factor, high: a.high * factor }
    : { low: a.high * factor, nominal: a.nominal * factor, high: a.low * factor };

export const sum = (all: readonly Interval[]): Interval => all.reduce(add, exactly(0));

export const width = (a: Interval): number => a.high - a.low;

export const isExact = (a: Interval): boolean => a.low === a.high;

/** Whether `value` is inside, limits included. */
export const contains = (a: Interval, value: number): boolean => a.low <= value && value <= a.high;
