import { findSetting, findTypes, type Rig, type SettingChange, sayValue } from '#core/rig/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { type Cost, type CostKind, totalOf } from '#core/solve/index.ts';
import { count, formatNumber } from '#web/parts/index.ts';

/** 'Mixer, Strip 1, send 2: off' */
export function sayChange(rig: Rig, { deviceId, settingId, value }: SettingChange): string {
  const spec = findSetting(rig, findTypes(rig), deviceId, settingId);
  return `${deviceName(rig, deviceId)}, ${spec?.name ?? settingId}: ${sayValue(spec, value)}`;
}

/** What is worse for whom. */
const WORSE: Partial<Record<CostKind, (by: number) => string>> = {
  lost: () => 'not heard any more',
  added: () => 'heard now, though nobody asked for it',
  conversions: (by) => `${count(by, 'more converter')}`,
  noise: (by) => `${formatNumber(by)} dB nearer to the noise`,
  sync: (by) => `${formatNumber(by)} ms further out of sync`,
  level: (by) => `${formatNumber(Math.abs(by))} dB ${by < 0 ? 'quieter' : 'louder'}`,
  fader: () => 'no fader of its own any more',
  clips: () => 'its peaks clip',
  louder: (by) => `${formatNumber(by)} dB louder in somebody’s ears`,
};
/** What is against a setting itself. */
const AGAINST: Partial<Record<CostKind, string>> = {
  down: 'a level all the way down forgets where it stood',
  worn: 'a button on what somebody wears is pressed in passing',
  'far-side': 'somebody at the far end has to do it',
  keying: 'it is held while one speaks and does not stay',
  moment: 'it is set otherwise in another moment',
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
        return [{ points, text: `${source} at ${listener}: ${worse(by)}` }];
      }
      const against = AGAINST[kind];
      if (setting && against) return [{ points, text: `${sayChange(rig, setting)}: ${against}` }];
      return kind === 'rings' ? [{ points, text: 'A loop begins to ring' }] : [];
    })
    .sort((a, b) => b.points - a.points);
}

export const sayPoints = (costs: readonly Cost[]): string => formatNumber(totalOf(costs), 1);
