import type { ScanChange, ScanInput, ScanLink } from '#core/desk-tests/scan/index.ts';
import { type Disagreement, type Expected, sayWay as sayDevices } from '#core/desk-tests/tap-test/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { listenerIn, sourceIn } from '#core/model/rig/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { scan as say } from '#words/index.ts';

const db = (value: number): string => formatNumber(value, 1);
const ms = (value: number): string => formatNumber(value, 1);
/** Figures that are whole as a rule: rates and levels that were set. */
const short = (value: number): string => formatNumber(value, Number.isInteger(value) ? 0 : 1);
export const khz = (hz: number): string => short(hz / 1000);
export const sayDbfs = short;

/** A change since a scan before, in a sentence. */
export function sayChange(change: ScanChange): string {
  switch (change.kind) {
    case 'output-gone':
      return say.outputGone(change);
    case 'output-new':
      return say.outputNew(change);
    case 'input-gone':
      return say.inputGone(change);
    case 'input-new':
      return say.inputNew(change);
    case 'output-renamed':
      return say.outputRenamed(change);
    case 'input-renamed':
      return say.inputRenamed(change);
    case 'link-gone':
      return say.linkGone(change);
    case 'link-new':
      return say.linkNew({ ...change, db: db(change.levelDb) });
    case 'level':
      return say.levelChanged({ ...change, now: db(change.now), before: db(change.before) });
    case 'delay':
      return say.delayChanged({ ...change, now: ms(change.now), before: ms(change.before) });
    case 'polarity':
      return say.polarityChanged(change);
    case 'sides':
      return say.sidesChanged(change);
    case 'again':
      return say.againChanged(change);
    case 'band':
      return say.bandChanged(change);
    case 'rate':
      return say.rateChanged({ name: change.name, now: khz(change.now), before: khz(change.before) });
  }
}

export const SIDES: Readonly<Record<ScanLink['sides'], () => string>> = {
  straight: say.straight,
  crossed: say.crossed,
  'both-in-each': say.bothInEach,
  'left-only': say.leftOnly,
  'right-only': say.rightOnly,
  mono: say.mono,
};

const PROCESSING: Readonly<Record<ScanInput['processing'][number], () => string>> = {
  'echo-cancel': say.echoCancel,
  'noise-suppression': say.noiseSuppression,
  'gain-control': say.gainControl,
};

/** What stands under an input's name: its rate, and what is odd about it. */
export const factsOf = ({ sampleRateHz, silent, processing }: ScanInput): string =>
  [
    say.rateKhz({ khz: khz(sampleRateHz) }),
    ...(silent ? [say.silent()] : []),
    ...processing.map((p) => PROCESSING[p]()),
  ].join(', ');

export const sayDb = db;
export const sayMs = ms;

interface PathRead {
  readonly sourceId: string;
  readonly listenerId: string;
  readonly read?: { readonly heard: { readonly atMs: number } | null } | null;
}

/** What differs between a path of a scan and the drawing, in a sentence. @param rig  with outputs and inputs in place of its own */
export function sayDifference(rig: Rig, { sourceId, listenerId, read }: PathRead, difference: Disagreement): string {
  const ends = { from: sourceIn(rig, sourceId).name, to: listenerIn(rig, listenerId).name };
  switch (difference.kind) {
    case 'missing':
    case 'hardly':
      return say.drawnNotFound(ends);
    case 'extra':
      return read?.heard ? say.foundNotDrawnAt({ ...ends, ms: ms(read.heard.atMs) }) : say.foundNotDrawn(ends);
    case 'twice':
      return say.twiceNotDrawn({
        ...ends,
        ms: ms(Math.abs(difference.afterMs)),
        when: difference.afterMs > 0 ? say.later() : say.earlier(),
      });
    case 'once':
      return say.onceDrawnTwice({ ...ends, ms: ms(difference.afterMs) });
    case 'upside-down':
      return say.polarityNotDrawn(ends);
    case 'level':
      return difference.db > 0
        ? say.louderThanDrawn({ ...ends, db: db(difference.db) })
        : say.quieterThanDrawn({ ...ends, db: db(-difference.db) });
    case 'late':
      return difference.ms > 0
        ? say.laterThanDrawn({ ...ends, ms: ms(difference.ms) })
        : say.earlierThanDrawn({ ...ends, ms: ms(-difference.ms) });
    case 'band':
      return say.otherBand({ ...ends, hz: formatNumber(difference.highHz) });
    case 'clock':
      return say.otherClock({ ...ends, ppm: formatNumber(difference.ppm, 1) });
    case 'jump':
    case 'wanders':
      return say.delayMoves(ends);
  }
}

/** The way that a path takes as drawn, and how late it is then. */
export const sayWay = (rig: Rig, { deviceIds, delayMs, levelDb }: Expected['ways'][number]): string =>
  say.drawnWay({
    way: sayDevices(rig, deviceIds),
    ms: short(delayMs.nominal),
    low: short(delayMs.low),
    high: short(delayMs.high),
    db: db(levelDb),
  });
