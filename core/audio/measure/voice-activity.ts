import { type Biquad, band, filterInPlace } from '#core/audio/process/index.ts';

/** Range of a telephone: what a voice is understood by. */
const VOICE_HZ = [300, 3400] as const;
const FRAMES_EACH_S = 50;
/** Looked at together, s. */
const WINDOW_S = 2;
/** Syllables come at about 4 a second; ripples of the envelope from and to, Hz. */
const SYLLABLES_HZ = [2.5, 6] as const;
const STEP_HZ = 0.5;
/** Relative energy of those ripples from which it may be a voice. */
const MIN_MODULATION = 0.08;
/** Between syllables a voice is quiet: share of frames under half the mean. */
const MIN_QUIET_SHARE = 0.12;
const SILENT = 1e-5;

export interface VoiceActivity {
  /** @param block  a second of sound, one channel. @returns whether the last two seconds sound like a voice */
  hears(block: Float32Array): boolean;
}

/**
 * Tells a voice, also over sound 6 dB under it, by the 4 Hz modulation energy and the share of low-energy frames (Scheirer
 * & Slaney, ICASSP 1997). Music with a beat may pass for one; steady sound, noise and hum don't.
 */
export function voiceActivity(sampleRateHz: number): VoiceActivity {
  const sections: readonly Biquad[] = band(VOICE_HZ[0], VOICE_HZ[1], sampleRateHz);
  const hop = Math.round(sampleRateHz / FRAMES_EACH_S);
  let envelope: number[] = [];
  return {
    hears(block) {
      const voice = block.slice();
      filterInPlace(voice, sections);
      for (let from = 0; from + hop <= voice.length; from += hop) {
        let power = 0;
        for (let i = from; i < from + hop; i++) power += voice[i]! * voice[i]!;
        envelope.push(Math.sqrt(power / hop));
      }
      envelope = envelope.slice(-WINDOW_S * FRAMES_EACH_S);
      return isVoice(envelope);
    },
  };
}

function isVoice(envelope: readonly number[]): boolean {
  const n = envelope.length;
  const mean = envelope.reduce((sum, v) => sum + v, 0) / Math.max(1, n);
  if (n < WINDOW_S * FRAMES_EACH_S || mean < SILENT) return false;
  const quietShare = envelope.filter((v) => v < mean / 2).length / n;
  return quietShare >= MIN_QUIET_SHARE && modulationOf(envelope, mean) >= MIN_MODULATION;
}

/** Energy of the envelope's ripples at the rate of syllables, under a Hann window, against its mean. */
function modulationOf(envelope: readonly number[], mean: number): number {
  const n = envelope.length;
  let energy = 0;
  for (let hz = SYLLABLES_HZ[0]; hz <= SYLLABLES_HZ[1]; hz += STEP_HZ) {
    const step = (2 * Math.PI * hz) / FRAMES_EACH_S;
    let [re, im] = [0, 0];
    envelope.forEach((v, i) => {
      const x = (0.5 - 0.5 * Math.cos((2 * Math.PI * i) / n)) * (v / mean - 1);
      re += x * Math.cos(step * i);
      im += x * Math.sin(step * i);
    });
    energy += (4 * (re * re + im * im)) / (n * n);
  }
  return energy;
}
