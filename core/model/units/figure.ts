import type { Text } from '#core/base/said/index.ts';
import { type Interval, isExact, negate, sum } from './interval.ts';

/**
 * Source of a figure: a published standard or plain physics; a typical value with its range;
 * a measurement with its spread; or a setting that someone dialled.
 */
type FigureKind = 'standard' | 'typical' | 'measured' | 'set';
export type FigureUnit = 'ms' | 'dB' | 'dBFS' | 'dBu' | 'dB SPL' | 'dBTP' | 'LUFS' | 'LU' | 'ppm';

/** A value that can be asked why: what it is, how sure, who says so, and the terms that it was made of. */
export interface Figure {
  readonly label: Text;
  readonly value: Interval;
  readonly unit: FigureUnit;
  readonly kind: FigureKind;
  readonly source: Text;
  /** One standard deviation and the number of readings, for a measured figure. */
  readonly spread?: { readonly sd: number; readonly count: number };
  readonly terms: readonly Figure[];
}

/** The less certain kind names a sum: one typical term makes the whole typical. */
const DOUBT: Record<FigureKind, number> = { set: 0, standard: 1, measured: 2, typical: 3 };

/** A sum that keeps its terms. Its kind is that of its least certain term which has any width or value. */
export function sumFigures(label: Text, unit: FigureUnit, terms: readonly Figure[], source: Text): Figure {
  const telling = terms.filter((t) => !(isExact(t.value) && t.value.nominal === 0));
  const kind = telling.reduce<FigureKind>((worst, t) => (DOUBT[t.kind] > DOUBT[worst] ? t.kind : worst), 'set');
  return {
    label,
    value: sum(terms.map((t) => t.value)),
    unit,
    kind: telling.length === 0 ? 'standard' : kind,
    source,
    terms,
  };
}

/** The same figure counted the other way, for differences. */
export const negateFigure = (f: Figure): Figure => ({
  ...f,
  value: negate(f.value),
  terms: f.terms.map(negateFigure),
});
