import type { Text } from '#core/base/said/index.ts';
import { clockOf, knobTravel } from '#core/model/units/index.ts';
import { say } from './sayings.ts';
import type { SettingSpec } from './schema-type.ts';

type Gain = Extract<SettingSpec, { kind: 'gain' }>;

/** Levels and sends have a mark at 0 dB, where nothing is added and nothing lost; input gains begin there. */
export const hasUnity = ({ min, max, offAtMin }: Gain): boolean => min < 0 && max >= 0 && (offAtMin || max > 0);

/** How far a knob or fader is turned up, 0 to 1: levels by an audio taper (typical), input gains evenly. */
export function travelOf(spec: Gain, valueDb: number): number {
  if (valueDb <= spec.min) return 0;
  return spec.offAtMin ? knobTravel(spec.max - valueDb) : (valueDb - spec.min) / (spec.max - spec.min);
}

/** Where one finds it: 'at unity (0 dB)', 'fully down', 'about 1 o'clock', or a part of a fader's travel. */
export function sayKnob(spec: Gain, valueDb: number): Text {
  if (valueDb <= spec.min && spec.offAtMin) return say.fullyDown();
  if (valueDb === 0 && hasUnity(spec)) return say.atUnityDb();
  const travel = travelOf(spec, valueDb);
  // A fader slides, everything else is turned.
  return spec.purpose === 'fader'
    ? say.atAboutItsRange({ percent: Math.round(20 * travel) * 5 })
    : say.about({ travel: clockOf(travel) });
}
