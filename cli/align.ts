import loadHighs from 'highs';
import { findSetting, findTypes, sayValue } from '#core/model/rig/index.ts';
import { alignAll, programsOver, recordedListeners } from '#core/routing/suggest/index.ts';
import { deviceName, evaluate } from '#core/signal/index.ts';
import { cli as say } from '#words/index.ts';
import type { Command } from './command.ts';
import { inMoment, readRig } from './rig-file.ts';

const WHY = {
  'no-setting': say.noSettingAffectsIt(),
  'out-of-range': say.delaySettingsAreAt(),
  'pulled-both-ways': say.whatWouldHelpHere(),
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
    why: p.lacks && say.shouldArriveMsLater({ later: p.lacks.later, ms: round(p.lacks.ms), why: WHY[p.lacks.why] }),
  }));
  const { excessMs, delayMs, proven } = found;
  const lines = [
    ...found.changes.map(
      (c) =>
        `${deviceName(rig, c.deviceId)}, ${findSetting(rig, types, c.deviceId, c.settingId)!.name}: ${sayValue(findSetting(rig, types, c.deviceId, c.settingId), c.value)}`,
    ),
    ...(found.changes.length === 0 ? [say.noDelayNeedsChanging()] : []),
    ...offsets
      .flatMap((o) => (o.why ? [{ ...o, why: o.why }] : []))
      .map((o) =>
        say.atMsOutsideTolerance({
          source: o.source,
          listener: o.listener,
          offsetMs: o.offsetMs.toFixed(0),
          why: o.why,
        }),
      ),
    say.msInTotalIs({ excess: round(excessMs), proven: proven ? 'yes' : 'no' }),
  ];
  return {
    json: { settings, offsets, beyondMs: round(excessMs), delayMs: round(delayMs), proven, slippedInTheEdit: inEdit },
    text: lines.join('\n'),
  };
};
