import { unitOf } from './lookup.ts';
import type { SettingSpec, SettingValue } from './schema-type.ts';

/** A value of a setting as one reads it on the box, with its unit. */
export function sayValue(spec: SettingSpec | undefined, value: SettingValue | undefined): string {
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (spec?.kind === 'switch') return spec.options.find((o) => o.value === value)?.label ?? String(value);
  if (spec?.kind === 'gain' && spec.offAtMin && value === spec.min) return 'fully down';
  if (spec?.kind === 'value' && value === spec.off) return 'off';
  return `${value} ${unitOf(spec) || 'dB'}`;
}
