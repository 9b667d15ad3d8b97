import { FRAME_RATES, frameMs, hertz, type Rate } from '#core/model/units/index.ts';
import { beatHeardS, beatsOf, type Chirp, ratesHeard } from './chirps.ts';
import { powerOf, readCells } from './code.ts';
import { BEATS, framesABeat, framesALoop, SLATE_RATES } from './film.ts';
import type { PanelRead } from './panel.ts';
import { fitPhase, type Phase, type SeenFrame } from './phase.ts';
import { centerOf, isSquareOn, medianQuad, type Quad, widthOf } from './quad.ts';

/** A panel read in one picture of a take. */
export interface PanelSeen extends PanelRead {
  readonly atMs: number;
}

/** Everything that was looked at for slates in a take. */
export interface SlateSights {
  readonly panels: readonly PanelSeen[];
  /** Pictures that were looked at, read or not: their times, in order. */
  readonly timesMs: Float64Array;
}

/** One beat: when the picture shows it, when it is heard. */
interface SlateBeat {
  readonly pictureMs: number;
  readonly soundMs: number;
  /** Sound minus picture: positive when the sound is late. */
  readonly offsetMs: number;
  readonly used: boolean;
}

/** How pictures of the slate came through. */
interface PictureRun {
  /** Pictures in which the code was read, of those that the slate was in. */
  readonly read: number;
  readonly of: number;
  /** Pictures that show again what the one before showed although the slate had gone on; slate pictures passed over. */
  readonly repeated: number;
  readonly skipped: number;
  /** Pictures that the file itself lacks. */
  readonly missing: number;
  readonly mixed: number;
  /** The slate's own rate, and the length of its beats, as the take's clock has them. */
  readonly rateHz: number;
  readonly beatMs: number;
  readonly phase: Phase;
  /** Handed on as it was, or looked at from outside by a camera. */
  readonly seenBy: 'direct' | 'camera';
}

/** A slate in a take, from when to when, and where its screen was in the picture. */
export interface SlateReading {
  readonly id: number;
  readonly rate: Rate;
  readonly fromMs: number;
  readonly toMs: number;
  readonly quad: Quad;
  readonly run: PictureRun;
  readonly beats: readonly SlateBeat[];
  /** Mean of the beats that agree; null where no sound of the slate was heard with it. */
  readonly offset: {
    readonly offsetMs: number;
    readonly sdMs: number;
    readonly boundMs: number;
    readonly count: number;
  } | null;
}

/** Fewer pictures than this say nothing. */
const FEWEST = 5;
/** Sound further away from the picture than this can't be assigned by the nearest beat alone. */
const NEAREST_MS = 900;
/** Beats this much further off than the middle one are left out. */
const ODD_ONE_MS = 4;

/** Reads every slate of a take: each screen for itself, each time that it was started again for itself. */
export function readSlates({ panels, timesMs }: SlateSights, chirps: readonly Chirp[]): SlateReading[] {
  return screensOf(panels)
    .map(withOneCurve)
    .flatMap((seen) =>
      likeliest(ratesOf(seen, chirps).map((rate) => showingsOf(seen, rate).map((s) => readOne(s, timesMs, chirps)))),
    )
    .sort((a, b) => a.fromMs - b.fromMs || a.quad[0].x - b.quad[0].x);
}

/** Panels by id, and by where they stand: a screen's picture moves little from one to the next. */
function screensOf(panels: readonly PanelSeen[]): PanelSeen[][] {
  const screens: PanelSeen[][] = [];
  for (const panel of [...panels].sort((a, b) => a.atMs - b.atMs)) {
    const at = centerOf(panel.quad);
    const own = screens.find((screen) => {
      const last = screen.at(-1)!;
      const was = centerOf(last.quad);
      return (
        last.id === panel.id &&
        last.atMs < panel.atMs &&
        Math.hypot(at.x - was.x, at.y - was.y) < widthOf(panel.quad) / 2
      );
    });
    if (own) own.push(panel);
    else screens.push([panel]);
  }
  return screens.filter((s) => s.length >= FEWEST);
}

/** The same pictures read again, all by the one curve that they were stored by. */
function withOneCurve(screen: readonly PanelSeen[]): PanelSeen[] {
  const power = powerOf(screen.map((p) => p.cells));
  return screen.map((p) => ({ ...p, ...(readCells(p.cells, power) ?? {}) }));
}

interface Showing {
  readonly rate: Rate;
  readonly panels: readonly PanelSeen[];
  readonly frames: readonly SeenFrame[];
}

/** A screen's panels counted on through the loops, cut where the slate was started again or the picture fell behind. */
function showingsOf(panels: readonly PanelSeen[], rate: Rate): Showing[] {
  const ms = frameMs(rate);
  const loop = framesALoop(rate);
  const out: Showing[] = [];
  let part: { panels: PanelSeen[]; frames: SeenFrame[] } = { panels: [], frames: [] };
  const close = () => {
    if (part.frames.length >= FEWEST) out.push({ rate, ...part });
    part = { panels: [], frames: [] };
  };
  panels.forEach((panel, i) => {
    const countOn = (last: SeenFrame) => {
      const due = last.frame + (panel.atMs - last.atMs) / ms;
      return panel.frame + loop * Math.round((due - panel.frame) / loop);
    };
    const strays = (last: SeenFrame, frame: number) =>
      Math.abs(frame - last.frame - (panel.atMs - last.atMs) / ms) >
      MAX_STRAY_FRAMES + (STRAY_PPM * 1e-6 * (panel.atMs - last.atMs)) / ms;
    const last = part.frames.at(-1);
    let frame = last ? countOn(last) : panel.frame;
    if (last && strays(last, frame)) {
      // One picture that says otherwise is misread; when the next agrees with it, the slate was started again.
      const next = panels[i + 1];
      const agrees = next && Math.abs(next.frame - panel.frame - (next.atMs - panel.atMs) / ms) <= MAX_STRAY_FRAMES;
      if (!agrees) return;
      close();
      frame = panel.frame;
    }
    part.panels.push(panel);
    const middle = panel.middle === null ? null : panel.middle + frame - panel.frame;
    part.frames.push({ atMs: panel.atMs, frame, blend: panel.blend, middle });
  });
  close();
  return out;
}
const MAX_STRAY_FRAMES = 4;
const STRAY_PPM = 500;

/** The slate's rate: by how fast its frames go on; of two that are a thousandth apart by its beats, both where none were heard. */
function ratesOf(panels: readonly PanelSeen[], chirps: readonly Chirp[]): Rate[] {
  const speeds: number[] = [];
  let j = 0;
  for (let i = 0; i < panels.length; i++) {
    while (panels[i]!.atMs - panels[j]!.atMs > LONG_MS) j++;
    const apart = panels[i]!.atMs - panels[j]!.atMs;
    const frames = panels[i]!.frame + panels[i]!.blend - panels[j]!.frame - panels[j]!.blend;
    if (apart > LONG_MS / 3 && frames > 0) speeds.push((1000 * frames) / apart);
  }
  if (speeds.length === 0) return [];
  speeds.sort((a, b) => a - b);
  const speed = speeds[speeds.length >> 1]!;
  const near = [...SLATE_RATES].sort((a, b) => Math.abs(hertz(a) - speed) - Math.abs(hertz(b) - speed));
  const likely = near.filter(
    (r) => Math.abs(hertz(r) / speed - 1) < MAX_OFF_RATE && Math.abs(hertz(r) / hertz(near[0]!) - 1) < 0.002,
  );
  const beat = beatHeardS(chirps);
  const heard = beat === null ? [] : ratesHeard(beat);
  const both = likely.filter((r) => heard.includes(r));
  return both.length > 0 ? both : likely;
}
const LONG_MS = 900;
const MAX_OFF_RATE = 0.05;

/** Of readings at different rates the one that contradicts itself least: a wrong rate needs a clock that no player has. */
function likeliest(readings: readonly (readonly SlateReading[])[]): readonly SlateReading[] {
  const doubt = (all: readonly SlateReading[]) =>
    all.reduce(
      (sum, { run: { phase, read } }) => sum + read * (phase.jitterMs + Math.abs(phase.ratePpm) / DOUBTFUL_PPM),
      0,
    ) /
    Math.max(
      1,
      all.reduce((sum, r) => sum + r.run.read, 0),
    );
  return readings.reduce<readonly SlateReading[]>(
    (best, next) => (best.length > 0 && doubt(best) <= doubt(next) ? best : next),
    [],
  );
}
/** This many ppm are penalized like a millisecond of misfit. */
const DOUBTFUL_PPM = 200;

/** Rates nearer than this are one: clocks differ by less, 30 and 29.97 by more. */
const SAME_RATE = 3e-4;

function readOne({ rate, panels, frames }: Showing, timesMs: Float64Array, chirps: readonly Chirp[]): SlateReading {
  const ms = frameMs(rate);
  const [fromMs, toMs] = [frames[0]!.atMs, frames.at(-1)!.atMs];
  const within = timesMs.filter((t) => t >= fromMs && t <= toMs);
  const takeMs = usualStep(within);
  const quad = medianQuad(panels.map((p) => p.quad));
  const direct = isSquareOn(quad);
  const follows = direct && Math.abs(takeMs / ms - 1) < SAME_RATE;
  const phase = fitPhase(frames, ms, takeMs, follows);
  const run: PictureRun = {
    ...runOf(frames, within, ms, takeMs),
    read: frames.length,
    of: within.length,
    mixed: frames.filter((f) => f.blend > 0 || f.middle !== null).length,
    rateHz: hertz(rate) / (1 + phase.ratePpm * 1e-6),
    beatMs: framesABeat(rate) * ms * (1 + phase.ratePpm * 1e-6),
    phase,
    seenBy: direct ? 'direct' : 'camera',
  };
  const beats = beatsIn(run, fromMs, toMs, chirps);
  return {
    id: panels[0]!.id,
    rate,
    fromMs,
    toMs,
    quad,
    run,
    beats,
    offset: offsetOf(beats, phase),
  };
}

function usualStep(timesMs: Float64Array): number {
  const steps = timesMs.slice(1).map((t, i) => t - timesMs[i]!);
  steps.sort();
  const middle = steps[steps.length >> 1] ?? 0;
  const usual = steps.filter((s) => Math.abs(s - middle) < middle / 2);
  const mean = usual.reduce((a, b) => a + b, 0) / Math.max(1, usual.length);
  const near = FRAME_RATES.find((r) => Math.abs(frameMs(r) / mean - 1) < 4e-4);
  return near ? frameMs(near) : mean;
}

/** Pictures shown twice, passed over, or lacking: what the file's own times do not explain. */
function runOf(
  frames: readonly SeenFrame[],
  timesMs: Float64Array,
  ms: number,
  takeMs: number,
): Pick<PictureRun, 'repeated' | 'skipped' | 'missing'> {
  let [repeated, skipped, missing] = [0, 0, 0];
  for (let i = 1; i < frames.length; i++) {
    const [a, b] = [frames[i - 1]!, frames[i]!];
    const apart = b.atMs - a.atMs;
    if (apart > GAP_STEPS * takeMs) continue;
    const gone = b.frame + b.blend - a.frame - a.blend;
    if (apart >= ms * 0.98 && gone < 0.02) repeated++;
    skipped += Math.max(0, Math.round(gone - Math.ceil(apart / ms + 0.02)));
  }
  for (let i = 1; i < timesMs.length; i++) {
    const steps = Math.round((timesMs[i]! - timesMs[i - 1]!) / takeMs);
    // Longer gaps are stretches that no one looked at.
    if (steps > 1 && steps <= GAP_STEPS) missing += steps - 1;
  }
  return { repeated, skipped, missing };
}
const GAP_STEPS = 12;

/** Every chirp with the beat that it belongs to: by the order of chirps, else the nearest. */
function beatsIn({ phase, beatMs }: PictureRun, fromMs: number, toMs: number, chirps: readonly Chirp[]): SlateBeat[] {
  const near = chirps.filter((c) => c.atMs > fromMs - LATEST_MS && c.atMs < toMs + LATEST_MS);
  const named = beatsOf(near, beatMs / 1000);
  const pairs = near.flatMap((chirp, i) => {
    const at = (chirp.atMs - phase.zeroMs) / beatMs;
    const beat = named ? named[i]! + BEATS * Math.round((at - named[i]!) / BEATS) : Math.round(at);
    const pictureMs = phase.zeroMs + beat * beatMs;
    const offsetMs = chirp.atMs - pictureMs;
    if (!named && Math.abs(offsetMs) > NEAREST_MS) return [];
    return pictureMs >= fromMs - beatMs && pictureMs <= toMs + beatMs
      ? [{ pictureMs, soundMs: chirp.atMs, offsetMs }]
      : [];
  });
  const sorted = pairs.map((p) => p.offsetMs).sort((a, b) => a - b);
  const middle = sorted[sorted.length >> 1] ?? 0;
  return pairs.map((p) => ({ ...p, used: Math.abs(p.offsetMs - middle) <= ODD_ONE_MS }));
}
/** How long after the last readable picture, or before the first, a chirp may be. */
const LATEST_MS = 4000;

function offsetOf(beats: readonly SlateBeat[], phase: Phase): SlateReading['offset'] {
  const used = beats.filter((b) => b.used);
  if (used.length === 0) return null;
  const offsetMs = used.reduce((sum, b) => sum + b.offsetMs, 0) / used.length;
  const scatter =
    used.length > 1 ? Math.sqrt(used.reduce((sum, b) => sum + (b.offsetMs - offsetMs) ** 2, 0) / (used.length - 1)) : 0;
  const boundMs = phase.boundMs + (2 * scatter) / Math.sqrt(used.length);
  return { offsetMs, sdMs: Math.hypot(scatter, phase.boundMs / 2), boundMs, count: used.length };
}
