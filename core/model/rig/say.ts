import type { Text } from '#core/base/said/index.ts';
import { unitOf } from './lookup.ts';
import { say } from './sayings.ts';
import type { SettingSpec, SettingValue } from './schema-type.ts';

/** A value of a setting as one reads it on the device, with its unit. */
export function sayValue(spec: SettingSpec | undefined, value: SettingValue | undefined): Text {
  if (typeof value === 'boolean') return value ? say.on() : say.off();
  if (spec?.kind === 'switch') return spec.options.find((o) => o.value === value)?.label ?? String(value);
  if (spec?.kind === 'gain' && spec.offAtMin && value === spec.min) return say.fullyDown();
  if (spec?.kind === 'value' && value === spec.off) return say.off();
  return `${value} ${unitOf(spec) || 'dB'}`;
}
