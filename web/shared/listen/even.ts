/** Every loop is brought to this before the level: so a switch compares sounds, not loudness. */
const EVEN_LUFS = -23;
/** Never louder than this at its tops, whatever its loudness is. */
const TOP = 0.9;

export interface Sounding {
  readonly channels: readonly Float32Array[];
  /** As it stands; null for silence. */
  readonly integratedLufs: number | null;
}

const topOf = (channels: readonly Float32Array[]): number => {
  let top = 0;
  for (const c of channels) for (let i = 0; i < c.length; i++) top = Math.max(top, Math.abs(c[i]!));
  return top;
};

/** The gain that brings a loop to the even loudness, its tops kept under full scale. */
export function evenGain({ integratedLufs, channels }: Sounding): number {
  if (integratedLufs === null) return 0;
  const top = topOf(channels);
  return Math.min(10 ** ((EVEN_LUFS - integratedLufs) / 20), top > 0 ? TOP / top : 0);
}

/** Gains that make all of them equally loud, as loud as the one allows that can take least. */
export function evenGains(all: readonly Sounding[]): number[] {
  const loudness = all.map((s) => s.integratedLufs);
  const reach = all.map((s, i) => (loudness[i] === null ? EVEN_LUFS : loudness[i]! + 20 * Math.log10(evenGain(s))));
  const common = Math.min(EVEN_LUFS, ...reach);
  return loudness.map((lufs) => (lufs === null ? 0 : 10 ** ((common - lufs) / 20)));
}
