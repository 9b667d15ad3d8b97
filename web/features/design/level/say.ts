import {
  endName,
  findDevice,
  findTypes,
  type Rig,
  type SettingChange,
  sayKnob,
  settingOf,
} from '#core/model/rig/index.ts';
import type { GainsFound } from '#core/routing/suggest/index.ts';
import { deviceName, type Evaluation, type Ladder, noiseParts } from '#core/signal/index.ts';
import { formatNumber, formatSigned } from '#web/shared/parts/index.ts';
import { level as say, textOf } from '#words/index.ts';

/** The stage that loses most, and the one with the least room, in words; null where nothing is worth a word. */
export function sayWorst({ rungs, worst }: Ladder): string | null {
  const rung = rungs[worst];
  if (!rung) return null;
  const beside = rung.fromBesideDb > rung.lostDb / 2;
  const how = beside ? say.otherInputsBringTheir() : say.itsOwnNoiseIs();
  return say.biggestLoss({ lostDb: formatNumber(rung.lostDb), box: textOf(rung.box), stage: textOf(rung.stage), how });
}

export function sayTightest({ rungs, tightest }: Ladder): string | null {
  const rung = rungs[tightest];
  if (rung?.headroomDb == null) return null;
  const at = `${textOf(rung.box)}, ${textOf(rung.stage)}`;
  const db = rung.headroomDb;
  return db < 0
    ? say.clipsAtTypicalPeaks({ at, db: formatNumber(-db) })
    : say.leastHeadroomDbAt({ db: formatNumber(db), at });
}

/** Contributions to the noise at the end: places and percent, largest first. */
export function noiseShares(rig: Rig, { graph }: Evaluation, node: number): { where: string; percent: number }[] {
  const parts = noiseParts(graph, node);
  const total = parts.reduce((sum, p) => sum + p.power, 0);
  const types = findTypes(rig);
  const byPlace = new Map<string, number>();
  for (const { edge, power } of parts) {
    const { deviceId, portId } = graph.nodes[graph.from[edge]!]!;
    const place = `${deviceName(rig, deviceId)}, ${endName(rig, types, { deviceId, portId })}`;
    byPlace.set(place, (byPlace.get(place) ?? 0) + power);
  }
  return [...byPlace]
    .map(([where, power]) => ({ where, percent: (100 * power) / total }))
    .sort((a, b) => b.percent - a.percent)
    .filter((p, i) => i < 3 && p.percent >= 1);
}

/** 'Mixer, Channel 1, gain: 40 to 46 dB, about 2 o'clock'. */
export function sayChange(rig: Rig, { deviceId, settingId, value }: SettingChange): string {
  const device = findDevice(rig, deviceId)!;
  const spec = findTypes(rig)
    .get(device.typeId)!
    .settings.find((s) => s.id === settingId)!;
  if (spec.kind !== 'gain') return `${device.name}, ${spec.name}`;
  const now = settingOf(device, spec).value as number;
  const to = value as number;
  return say.changeTo({
    device: device.name,
    spec: spec.name,
    now: sayDb(now),
    to: sayDb(to),
    to2: textOf(sayKnob(spec, to)),
  });
}

const sayDb = (db: number): string => formatSigned(db, Number.isInteger(db) ? 0 : 1);

/** Why a knob is to go there: where on the way it stands, and what it does there. */
export function sayReason(ladder: Ladder, { deviceId, settingId, value }: SettingChange): string {
  const index = ladder.rungs.findIndex((r) => r.setting?.deviceId === deviceId && r.setting.spec.id === settingId);
  const rung = ladder.rungs[index];
  if (!rung) return '';
  const by = (value as number) - rung.gainDb;
  const first = ladder.rungs.findIndex((r) => r.setting) === index;
  if (by > 0 && first) return say.gainEarlySoThat();
  if (value === 0) return say.atUnityItAdds();
  if (by < 0 && rung.phones) return say.headphoneOutputThatFeeds();
  return by < 0 ? say.turnedDownPeaksNeed() : say.restGainWhereThere();
}

/** What a proposal reaches, in one sentence. */
export function sayFound({ aimDb, endDb, snrBeforeDb, snrDb, headroomDb, met }: GainsFound, unit: string): string {
  const snr =
    snrDb === null
      ? ''
      : say.withSnr({
          snrDb: formatNumber(snrDb),
          snrBeforeDb: snrBeforeDb === null ? '' : say.nowValue({ snrBeforeDb: formatNumber(snrBeforeDb) }),
        });
  const room = headroomDb === null ? '' : say.dbHeadroomOverTypical({ headroomDb: formatNumber(headroomDb) });
  const end = `${formatNumber(endDb, 1)} ${unit}`;
  return met
    ? say.resultIs({ end, snr, room })
    : say.isntReachableWithControls({ aimDb: formatNumber(aimDb, 1), unit, end, snr, room });
}
