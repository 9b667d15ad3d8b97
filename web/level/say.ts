import { endName, findDevice, findTypes, type Rig, type SettingChange, sayKnob, settingOf } from '#core/rig/index.ts';
import { deviceName, type Evaluation, type Ladder, noiseParts } from '#core/signal/index.ts';
import type { GainsFound } from '#core/solve/index.ts';
import { formatNumber, formatSigned } from '#web/parts/index.ts';

/** The stage that loses most, and the one with the least room, in words; null where nothing is worth a word. */
export function sayWorst({ rungs, worst }: Ladder): string | null {
  const rung = rungs[worst];
  if (!rung) return null;
  const beside = rung.fromBesideDb > rung.lostDb / 2;
  const how = beside ? 'others that come in there bring their noise' : 'its own noise comes too near';
  return `Most is lost at ${rung.box}, ${rung.stage}: ${formatNumber(rung.lostDb)} dB of the distance to the noise; ${how}.`;
}

export function sayTightest({ rungs, tightest }: Ladder): string | null {
  const rung = rungs[tightest];
  if (rung?.headroomDb == null) return null;
  const at = `${rung.box}, ${rung.stage}`;
  const db = rung.headroomDb;
  return db < 0
    ? `It clips at ${at}: usual peaks stand ${formatNumber(-db)} dB over its ceiling. Gain has to come down before it.`
    : `The least room is at ${at}: usual peaks stand ${formatNumber(db)} dB under its ceiling.`;
}

/** Where the noise at the end comes from: places and percent, what matters first. */
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

/** 'Mixer, Strip 1, gain: 40 to 46 dB, about 2 o'clock'. */
export function sayChange(rig: Rig, { deviceId, settingId, value }: SettingChange): string {
  const device = findDevice(rig, deviceId)!;
  const spec = findTypes(rig)
    .get(device.typeId)!
    .settings.find((s) => s.id === settingId)!;
  if (spec.kind !== 'gain') return `${device.name}, ${spec.name}`;
  const now = settingOf(device, spec).value as number;
  const to = value as number;
  return `${device.name}, ${spec.name}: ${sayDb(now)} to ${sayDb(to)} dB, ${sayKnob(spec, to)}`;
}

const sayDb = (db: number): string => formatSigned(db, Number.isInteger(db) ? 0 : 1);

/** Why a knob is to go there: where on the way it stands, and what it does there. */
export function sayReason(ladder: Ladder, { deviceId, settingId, value }: SettingChange): string {
  const index = ladder.rungs.findIndex((r) => r.setting?.deviceId === deviceId && r.setting.spec.id === settingId);
  const rung = ladder.rungs[index];
  if (!rung) return '';
  const by = (value as number) - rung.gainDb;
  const first = ladder.rungs.findIndex((r) => r.setting) === index;
  if (by > 0 && first) return 'gain comes early: what makes noise after it counts less';
  if (value === 0) return 'at unity it adds nothing and loses nothing';
  if (by < 0 && rung.phones) return 'a headphone output that feeds something stands at half at most';
  return by < 0 ? 'turned down, since peaks need room after it' : 'the rest of the way up, where room is left for it';
}

/** What a proposal reaches, in one sentence. */
export function sayFound({ aimDb, endDb, snrBeforeDb, snrDb, headroomDb, met }: GainsFound, unit: string): string {
  const snr =
    snrDb === null
      ? ''
      : `, ${formatNumber(snrDb)} dB over the noise${snrBeforeDb === null ? '' : ` (now ${formatNumber(snrBeforeDb)})`}`;
  const room = headroomDb === null ? '' : `, ${formatNumber(headroomDb)} dB of room over the usual peaks`;
  const end = `${formatNumber(endDb, 1)} ${unit}`;
  return met
    ? `It comes out at ${end}${snr}${room}.`
    : `${formatNumber(aimDb, 1)} ${unit} cannot be had with what is on the way: it comes out at ${end}${snr}${room}.`;
}
