import { listOf, type Text } from '#core/base/said/index.ts';
import {
  atMoment,
  deviceIn,
  findSetting,
  findTypes,
  momentName,
  type Rig,
  type SettingChange,
  sayValue,
} from '#core/model/rig/index.ts';
import type { Remedy } from './remedies.ts';
import { say } from './sayings.ts';

/** Maximum number of settings that are named in one sentence. */
const NAMED = 3;

/** What a remedy asks one to do, as a sentence. */
export function sayRemedy(rig: Rig, { label, momentId, changes }: Remedy): Text {
  const says =
    label === null
      ? saySettings(
          atMoment(rig, momentId),
          changes.filter((c) => 'settingId' in c),
        )
      : say.labelled({ label });
  return momentId === null ? says : say.inMoment({ moment: momentName(rig, momentId), says });
}

function saySettings(rig: Rig, changes: readonly SettingChange[]): Text {
  const types = findTypes(rig);
  const parts = ({ deviceId, settingId, value }: SettingChange) => {
    const spec = findSetting(rig, types, deviceId, settingId);
    return { device: deviceIn(rig, deviceId).name, setting: spec?.name ?? settingId, value: sayValue(spec, value) };
  };
  const [first] = changes;
  if (!first) return '';
  if (changes.length === 1) return say.setOne(parts(first));
  const more = changes.length > NAMED ? [say.moreSettings({ count: changes.length - NAMED + 1 })] : [];
  const named = changes.slice(0, more.length > 0 ? NAMED - 1 : NAMED);
  const isOne = changes.every((c) => c.deviceId === first.deviceId);
  if (!isOne)
    return say.setOnSeveral({ settings: listOf('and', [...named.map((c) => say.deviceSettingTo(parts(c))), ...more]) });
  const settings = named.map((c) => {
    const { setting, value } = parts(c);
    return say.settingTo({ setting, value });
  });
  return say.setSeveral({ device: parts(first).device, settings: listOf('and', [...settings, ...more]) });
}
