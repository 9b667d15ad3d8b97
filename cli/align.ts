import loadHighs from 'highs';
import { findSetting, findTypes, sayValue } from '#core/rig/index.ts';
import { deviceName, evaluate } from '#core/signal/index.ts';
import { alignAll, programsOver, recordedListeners } from '#core/solve/index.ts';
import type { Command } from './command.ts';
import { inMoment, readRig } from './rig-file.ts';

const WHY = {
  'no-setting': 'no setting affects it',
  'out-of-range': 'the delay settings are at their limit',
  'pulled-both-ways': 'what would help here would hurt others more',
} as const;
const round = (ms: number): number => Math.round(ms * 1000) / 1000;

/** Delay settings for all listeners at once, and the offsets that remain. `--tracks edit`: recorded tracks are slipped later. */
export const align: Command = async ([path], { values }) => {
  const rig = inMoment(await readRig(path!), values.moment);
  const inEdit = values.tracks === 'edit' ? recordedListeners(rig) : [];
  const found = alignAll(rig, evaluate(rig), programsOver(await loadHighs()), { inEdit });
  const types = findTypes(rig);
  const settings = found.changes.map(({ deviceId, settingId, value }) => {
    const spec = findSetting(rig, types, deviceId, settingId)!;
    return {
      device: deviceId,
      setting: settingId,
      value,
      unit: spec.kind === 'delay' ? spec.unit : '',
      name: spec.name,
    };
  });
  const offsets = found.pairs.map((p) => ({
    source: p.sourceId,
    listener: p.listenerId,
    beforeMs: round(p.beforeMs),
    offsetMs: round(p.afterMs),
    toleranceMs: [p.earlyMs, p.lateMs],
    beyondMs: round(p.excessMs),
    why: p.lacks && `the ${p.lacks.later} should arrive ${round(p.lacks.ms)} ms later: ${WHY[p.lacks.why]}`,
  }));
  const { excessMs, delayMs, proven } = found;
  const lines = [
    ...found.changes.map(
      (c) =>
        `${deviceName(rig, c.deviceId)}, ${findSetting(rig, types, c.deviceId, c.settingId)!.name}: ${sayValue(findSetting(rig, types, c.deviceId, c.settingId), c.value)}`,
    ),
    ...(found.changes.length === 0 ? ['No delay needs changing.'] : []),
    ...offsets
      .filter((o) => o.why)
      .map((o) => `${o.source} at ${o.listener}: ${o.offsetMs.toFixed(0)} ms, outside tolerance: ${o.why}`),
    `${round(excessMs)} ms in total is outside tolerance; ${proven ? 'no other settings do better (proven)' : 'time ran out before this was proven best'}.`,
  ];
  return {
    json: { settings, offsets, beyondMs: round(excessMs), delayMs: round(delayMs), proven, slippedInTheEdit: inEdit },
    text: lines.join('\n'),
  };
};
