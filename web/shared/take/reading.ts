import { z } from 'zod';
import type { TakeNotes } from '#api/index.ts';
import { type Flash, GRID_COLUMNS, GRID_ROWS, type PictureOffset, pairMarks } from '#core/audio/measure/index.ts';
import type { SlateReading } from '#core/desk-tests/slates/index.ts';
import { frameMs } from '#core/model/units/index.ts';
import type { TakeLook } from '#web/shared/workers/index.ts';
import { keepForTakes, readForTakes } from './kept.ts';

/** A clap that is less likely one than this is shown and left out until someone says otherwise. */
const SURE = 0.75;
/** Stamps in some files are whole milliseconds: without a known rate this is the usual frame. */
const USUAL_FRAME_MS = 1000 / 60;
/** Duration of a slate's click and chirp, s; tolerance of its flash around the beat, s. */
const BEAT_BEFORE_MS = 15;
const BEAT_AFTER_MS = 120;
const FLASH_NEAR_MS = 130;

/** What was found, as marks that can be corrected; a slate's own clicks and flashes are no marks. */
export function notesFrom(look: TakeLook): TakeNotes {
  const slates = look.picture?.slates ?? [];
  const chirps = look.sound?.chirps ?? [];
  const isBeat = (atMs: number) => chirps.some((c) => atMs > c.atMs - BEAT_BEFORE_MS && atMs < c.atMs + BEAT_AFTER_MS);
  const isShown = (f: Flash) => slates.some((s) => isOnBeat(s, f.atMs) || isOnPanel(s, f, look.picture!));
  const claps = (look.sound?.claps ?? []).filter((c) => !isBeat(c.atMs));
  const flashes = withoutStrobe(
    (look.picture?.flashes ?? []).filter((f) => !isShown(f)),
    claps.map((c) => c.atMs),
  );
  return {
    flashes: flashes.map((f) => ({ atMs: f.atMs, used: true, byHand: false })),
    claps: claps.map((c) => ({ atMs: c.atMs, used: c.confidence >= SURE, byHand: false })),
    frameMs: look.picture?.uneven?.toMs ?? (look.picture?.frameRate ? frameMs(look.picture.frameRate) : null),
    speaksOf: null,
  };
}

/** Maximum number of flashes that are marks; more are a strobe, or flicker. */
export const MAX_FLASHES = 400;
const NEAR_CLAP_MS = 1000;

/** Of a strobe, only flashes near a clap are kept, strongest first: no one corrects thousands of marks. */
function withoutStrobe(flashes: readonly Flash[], clapsMs: readonly number[]): readonly Flash[] {
  if (flashes.length <= MAX_FLASHES) return flashes;
  return flashes
    .filter((f) => clapsMs.some((ms) => Math.abs(ms - f.atMs) < NEAR_CLAP_MS))
    .sort((a, b) => b.strength - a.strength)
    .slice(0, MAX_FLASHES)
    .sort((a, b) => a.atMs - b.atMs);
}

function isOnBeat({ run: { phase, beatMs }, fromMs, toMs }: SlateReading, atMs: number): boolean {
  if (atMs < fromMs - beatMs || atMs > toMs + beatMs) return false;
  const off = (atMs - phase.zeroMs) / beatMs;
  return Math.abs(off - Math.round(off)) * beatMs < FLASH_NEAR_MS;
}

/** The cells of the code light up and go out with nearly every frame. */
function isOnPanel(
  { quad, fromMs, toMs }: SlateReading,
  flash: Flash,
  { width, height }: { width: number; height: number },
): boolean {
  if (flash.atMs < fromMs - LOST_MS || flash.atMs > toMs + LOST_MS) return false;
  const x = (((flash.cell % GRID_COLUMNS) + 0.5) * width) / GRID_COLUMNS;
  const y = ((Math.floor(flash.cell / GRID_COLUMNS) + 0.5) * height) / GRID_ROWS;
  const [dx, dy] = [width / GRID_COLUMNS, height / GRID_ROWS];
  const xs = quad.map((p) => p.x);
  const ys = quad.map((p) => p.y);
  return x > Math.min(...xs) - dx && x < Math.max(...xs) + dx && y > Math.min(...ys) - dy && y < Math.max(...ys) + dy;
}
/** Just before it was first read, and after it was last, a slate was there too. */
const LOST_MS = 400;

export const offsetOfNotes = (notes: TakeNotes): PictureOffset | null =>
  pairMarks(notes.flashes, notes.claps, notes.frameMs ?? USUAL_FRAME_MS);

/** The own skew of whatever shows a slate: its sound against its picture where it stands, ms. */
const Skew = z.strictObject({ skewMs: z.number(), sdMs: z.number(), takeName: z.string() });
export type Skew = z.infer<typeof Skew>;

const SKEW = 'slate-skew';
export const skewOf = (slateId: number): Skew | null => readForTakes(SKEW, [String(slateId)], Skew);
export const keepSkew = (slateId: number, skew: Skew | null): boolean => keepForTakes(SKEW, [String(slateId)], skew);

/** A player whose skew no one measured: anywhere within 40 ms either way, evenly. */
export const UNKNOWN_SKEW_MS = 40;
const UNKNOWN_SKEW_SD = UNKNOWN_SKEW_MS / Math.sqrt(3);

/** Audio against video of a take: by its slate, otherwise by its claps. */
export interface TakeOffset {
  readonly offsetMs: number;
  readonly sdMs: number;
  readonly count: number;
  readonly by: 'slate' | 'claps';
  readonly slateId?: number;
}

/** What a slate says of the path, once the player's own skew is taken off, as far as it is known. */
export function offsetOfSlate({ id, offset }: SlateReading): TakeOffset | null {
  if (!offset) return null;
  const skew = skewOf(id);
  return {
    offsetMs: offset.offsetMs - (skew?.skewMs ?? 0),
    sdMs: Math.hypot(offset.sdMs, skew?.sdMs ?? UNKNOWN_SKEW_SD),
    count: offset.count,
    by: 'slate',
    slateId: id,
  };
}

/** The best estimate of a take's A/V offset; null where there is none. */
export function offsetOf(look: TakeLook | null, notes: TakeNotes | null): TakeOffset | null {
  const slates = (look?.picture?.slates ?? []).flatMap((s) => offsetOfSlate(s) ?? []);
  const best = slates.reduce<TakeOffset | null>((a, b) => (a && a.count >= b.count ? a : b), null);
  if (best) return best;
  const found = notes && offsetOfNotes(notes);
  return found ? { offsetMs: found.offsetMs, sdMs: found.sdMs, count: found.count, by: 'claps' } : null;
}
