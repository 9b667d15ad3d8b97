import { findSetting, findTypes, type Rig, type SettingChange, sayValue } from '#core/model/rig/index.ts';
import { type Cost, type CostKind, totalOf } from '#core/routing/suggest/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { formatNumber } from '#web/shared/parts/index.ts';
import { route as say } from '#words/index.ts';

/** 'Mixer, Channel 1, send 2: off' */
export function sayChange(rig: Rig, { deviceId, settingId, value }: SettingChange): string {
  const spec = findSetting(rig, findTypes(rig), deviceId, settingId);
  return `${deviceName(rig, deviceId)}, ${spec?.name ?? settingId}: ${sayValue(spec, value)}`;
}

/** What is worse for whom. */
const WORSE: Partial<Record<CostKind, (by: number) => string>> = {
  lost: () => say.noLongerReceived(),
  added: () => say.nowReceivedThoughNothing(),
  conversions: (by) => say.moreConverters({ count: by }),
  noise: (by) => say.dbCloserToNoise({ by: formatNumber(by) }),
  sync: (by) => say.msFurtherOutSync({ by: formatNumber(by) }),
  level: (by) => say.db({ by: formatNumber(Math.abs(by)), louder: by < 0 ? say.quieter() : say.louder() }),
  fader: () => say.noFaderItsOwn(),
  clips: () => say.itsPeaksClip(),
  louder: (by) => say.dbLouderInSomeones({ by: formatNumber(by) }),
};
/** What is against a setting itself. */
const AGAINST: Partial<Record<CostKind, string>> = {
  down: say.levelTurnedAllWay(),
  worn: say.buttonOnSomethingWorn(),
  'far-side': say.someoneAtFarEnd(),
  keying: say.itsHeldWhileTalking(),
  moment: say.itsSetDifferentlyIn(),
};

export interface CostLine {
  readonly points: number;
  readonly text: string;
}

/** Reasons why a set of settings costs what it costs, the heaviest first; what is beyond the settings themselves. */
export function costLines(rig: Rig, costs: readonly Cost[]): CostLine[] {
  const name = (list: readonly { readonly id: string; readonly name: string }[], id: string) =>
    list.find((x) => x.id === id)?.name ?? id;
  return costs
    .flatMap(({ kind, points, pair, setting, by = 0 }): CostLine[] => {
      const worse = WORSE[kind];
      if (pair && worse) {
        const [source, listener] = [name(rig.sources, pair.sourceId), name(rig.listeners, pair.listenerId)];
        return [{ points, text: say.atDestination({ source, listener, by: worse(by) }) }];
      }
      const against = AGAINST[kind];
      if (setting && against) return [{ points, text: `${sayChange(rig, setting)}: ${against}` }];
      return kind === 'rings' ? [{ points, text: say.feedbackLoopStartsTo() }] : [];
    })
    .sort((a, b) => b.points - a.points);
}

export const sayPoints = (costs: readonly Cost[]): string => formatNumber(totalOf(costs), 1);
