import { type Said, type Text, textOf } from '#core/base/said/index.ts';
import type { State } from '#core/signal/index.ts';
import { say } from './sayings.ts';
import type { DayFigure } from './series.ts';
import type { Session } from './session.ts';

/** Figures of a sentence at one input, as `core/audio/measure` returns them; the same fields. */
export interface Print {
  readonly lufs: number | null;
  readonly noiseDbfs: number | null;
  readonly humDbfs: number | null;
  readonly toneHz: number | null;
  readonly sidesDb: number | null;
}
type PrintId = keyof Print;

interface Measure {
  readonly id: PrintId;
  readonly label: Said;
  readonly unit: string;
  /** Tolerance from one time to the next, same person and microphone (typical). */
  readonly tolerance: number;
  /** A ratio: tolerance in octaves. */
  readonly octaves?: true;
  /** What it may be when it has gone up, or down. */
  readonly up: Said;
  readonly down: Said;
}

const MEASURES: readonly Measure[] = [
  {
    id: 'lufs',
    label: say.loudness(),
    unit: 'LUFS',
    tolerance: 3,
    up: say.closerOrTurnedUp(),
    down: say.fartherAwayOrTurned(),
  },
  {
    id: 'noiseDbfs',
    label: say.noise(),
    unit: 'dBFS',
    tolerance: 6,
    up: say.moreGainLaterIn(),
    down: say.lessGainOrGate(),
  },
  {
    id: 'humDbfs',
    label: say.hum(),
    unit: 'dBFS',
    tolerance: 6,
    up: say.groundLoopOrCable(),
    down: say.loopIsOpen(),
  },
  {
    id: 'toneHz',
    label: say.tone(),
    unit: 'Hz',
    tolerance: 0.35,
    octaves: true,
    up: say.thinnerOffAxisLow(),
    down: say.dullerBehindSomething(),
  },
  {
    id: 'sidesDb',
    label: say.leftVsRight(),
    unit: 'dB',
    tolerance: 3,
    up: say.rightSideIsWeaker(),
    down: say.leftSideIsWeaker(),
  },
];

export interface PrintDifference {
  readonly id: PrintId;
  readonly label: Said;
  readonly unit: string;
  readonly now: number | null;
  readonly before: number | null;
  /** How many tolerances it is off; Infinity where one of the two has none. */
  readonly off: number;
  readonly state: State;
  /** Possible causes; empty while unchanged. */
  readonly says: Text;
}

/** Whether it is as it was, measure by measure, what differs most first. */
export function sameAs(now: Print, before: Print): PrintDifference[] {
  return MEASURES.map(({ id, label, unit, tolerance, octaves, up, down }): PrintDifference => {
    const [a, b] = [now[id], before[id]];
    const apart = a === null || b === null ? null : octaves ? Math.log2(a / b) : a - b;
    const off = a === null && b === null ? 0 : apart === null ? Number.POSITIVE_INFINITY : Math.abs(apart) / tolerance;
    const rises = apart === null ? a !== null : apart > 0;
    return {
      id,
      label,
      unit,
      now: a,
      before: b,
      off,
      state: off <= 1 ? 'good' : off <= 2 ? 'watch' : 'fix',
      says: off <= 1 ? '' : rises ? up : down,
    };
  }).sort((a, b) => b.off - a.off);
}

const keyOf = (listenerId: string, id: PrintId): string => `same:${listenerId}:${id}`;

/** A print as figures of the day: they are charted like any other, and are what the next one is held against. */
export const figuresOfPrint = (listenerId: string, listener: string, print: Print, id: string): DayFigure[] =>
  MEASURES.flatMap((m): DayFigure[] => {
    const value = print[m.id];
    return value === null
      ? []
      : [
          {
            kind: 'figure',
            measurementId: `${id}:${m.id}`,
            key: keyOf(listenerId, m.id),
            label: textOf(say.bySentence({ listener, m: m.label })),
            unit: m.unit,
            value,
            sd: 0,
            count: 1,
          },
        ];
  });

/** The print that is held against: of the last session that went well and has one, else of the last that has one. */
export function printBefore(sessions: readonly Session[], listenerId: string): Print | null {
  const has = (s: Session) => s.figures.some((f) => f.key === keyOf(listenerId, 'lufs'));
  const session = sessions.find((s) => s.good === true && has(s)) ?? sessions.find(has);
  if (!session) return null;
  const value = (id: PrintId) => session.figures.findLast((f) => f.key === keyOf(listenerId, id))?.value ?? null;
  return {
    lufs: value('lufs'),
    noiseDbfs: value('noiseDbfs'),
    humDbfs: value('humDbfs'),
    toneHz: value('toneHz'),
    sidesDb: value('sidesDb'),
  };
}
