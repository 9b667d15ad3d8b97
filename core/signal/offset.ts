import type { Text } from '#core/base/said/index.ts';
import type { Measurement } from '#core/model/rig/index.ts';
import { exactly, type Figure, interval, isExact, negateFigure, scale, sumFigures } from '#core/model/units/index.ts';
import type { DelayTerm } from './graph.ts';
import { say } from './sayings.ts';

/** A delay term with how often it counts, added or taken away. */
export interface SignedTerm {
  readonly term: DelayTerm;
  readonly count: number;
}

/** Sound minus picture, term by term. What both go through cancels, however uncertain it is alone. */
export function difference(plus: readonly DelayTerm[], minus: readonly DelayTerm[]): SignedTerm[] {
  const counts = new Map<string, { term: DelayTerm; count: number }>();
  const count = (term: DelayTerm, by: number) => {
    const known = counts.get(term.key);
    if (known) known.count += by;
    else counts.set(term.key, { term, count: by });
  };
  for (const term of plus) count(term, 1);
  for (const term of minus) count(term, -1);
  return [...counts.values()].filter((c) => c.count !== 0);
}

/** Terms that a take has something to say about: all that are not known exactly. */
export const uncertain = (terms: readonly SignedTerm[]): SignedTerm[] => terms.filter((t) => !isExact(t.term.ms));

/** Two standard deviations to each side: about 95 % of a normal spread. */
const SIGMAS_SHOWN = 2;

type DelayMeasurement = Measurement & { kind: 'delay' };
export type Measurements = readonly DelayMeasurement[];
const SUM: Text = say.sumItsTerms();

/**
 * The signed sum of the terms as a figure. A measurement that speaks of some of them together replaces exactly those,
 * so one take also serves every other path that shares them all. The newest, then the widest measurement goes first.
 */
export function settle(measurements: Measurements, label: Text, terms: readonly SignedTerm[]): Figure {
  const hasPairs = terms.some((t) => t.term.beside !== undefined);
  if (measurements.length === 0 && !hasPairs) return sumFigures(label, 'ms', terms.map(figureOf), SUM);
  const left = new Map(terms.map((t) => [t.term.key, { ...t }]));
  const measured: Figure[] = [];
  for (const m of measurements) {
    for (const direction of [1, -1] as const) {
      if (!m.terms.every((t) => covers(left.get(t.figure)?.count ?? 0, t.sign * direction))) continue;
      const replaced = m.terms.map((t) => figureOf({ term: left.get(t.figure)!.term, count: t.sign * direction }));
      for (const t of m.terms) {
        const item = left.get(t.figure)!;
        left.set(t.figure, { ...item, count: item.count - t.sign * direction });
      }
      const figure = measuredFigure(m, replaced);
      measured.push(direction === 1 ? figure : { ...negateFigure(figure), terms: replaced });
      break;
    }
  }
  const paired = hasPairs ? takePairs(left) : [];
  const rest = [...left.values()].filter((t) => t.count !== 0).map(figureOf);
  return sumFigures(label, 'ms', [...measured, ...paired, ...rest], SUM);
}

/** Terms that are uncertain together and stand against each other: taken out, and their difference put in. */
function takePairs(left: Map<string, SignedTerm>): Figure[] {
  return [...left.values()].flatMap(({ term, count }): Figure[] => {
    const other = term.beside && left.get(term.beside.key);
    if (!other || count === 0 || Math.sign(other.count) !== -Math.sign(count)) return [];
    const times = Math.sign(count) * Math.min(Math.abs(count), Math.abs(other.count));
    left.set(term.key, { term, count: count - times });
    left.set(other.term.key, { term: other.term, count: other.count + times });
    const { ms, source } = term.beside;
    return [
      {
        label: say.vs2({ term: term.label, other: other.term.label }),
        value: scale(ms, times),
        unit: 'ms',
        kind: 'typical',
        source,
        terms: [figureOf({ term, count: times }), figureOf({ term: other.term, count: -times })],
      },
    ];
  });
}

const covers = (count: number, wanted: number): boolean =>
  Math.sign(count) === Math.sign(wanted) && Math.abs(count) >= Math.abs(wanted);

/** What takes have said about delays, as `settle` wants it: the newest first, of one take the widest. */
export const delayMeasurements = (all: readonly Measurement[]): Measurements =>
  all
    .filter((m): m is DelayMeasurement => m.kind === 'delay')
    .sort((a, b) => (a.takenAt === b.takenAt ? b.terms.length - a.terms.length : a.takenAt < b.takenAt ? 1 : -1));

function measuredFigure(m: DelayMeasurement, replaced: readonly Figure[]): Figure {
  const half = SIGMAS_SHOWN * m.ms.sd;
  return {
    label: replaced.length === 1 ? replaced[0]!.label : say.figureTogether({ label: m.label, count: replaced.length }),
    value: interval(m.ms.mean - half, m.ms.mean, m.ms.mean + half),
    unit: 'ms',
    kind: 'measured',
    source: say.take({ label: m.label, date: m.takenAt.slice(0, 10) }),
    spread: { sd: m.ms.sd, count: m.ms.count },
    terms: replaced,
  };
}

function figureOf({ term, count }: SignedTerm): Figure {
  return {
    label: term.label,
    value: scale(term.ms, count),
    unit: 'ms',
    kind: term.kind,
    source: term.source,
    terms: [],
  };
}

/** A plain delay, all its terms added: for one path alone. */
export const settleDelay = (measurements: Measurements, label: Text, terms: readonly DelayTerm[]): Figure =>
  terms.length === 0
    ? { label, value: exactly(0), unit: 'ms', kind: 'standard', source: say.nothingOnThisPath(), terms: [] }
    : settle(measurements, label, difference(terms, []));
