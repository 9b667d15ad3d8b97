import { findSetting, findTypes, type PlanCell, type Rig, sayValue } from '#core/model/rig/index.ts';
import { deviceName, mainVoiceOf, type PairChange } from '#core/signal/index.ts';
import { sayUnder, wantOf } from '#web/shared/parts/index.ts';
import { common, plan } from '#words/index.ts';

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

/** Whether the plan speaks of the very picture, or of another source that it has to keep time with; or of none. */
export function sayTime(rig: Rig, { sourceId, inTimeWith, keepTime }: PlanCell): string {
  if (keepTime === false) return plan.anyTime();
  return inTimeWith && inTimeWith !== sourceId ? plan.inTimeWith({ source: nameOf(rig.sources, inTimeWith) }) : '';
}

/** A requirement in one sentence. */
export function sayWant(rig: Rig, cell: PlanCell): string {
  const { sourceId, listenerId, want, underVoiceDb, ownTrack } = cell;
  const voice = mainVoiceOf(rig);
  const level =
    underVoiceDb === undefined || voice === null
      ? ''
      : (underVoiceDb === 0 ? plan.asLoudAs : plan.levelAgainst)({
          level: sayUnder(underVoiceDb),
          voice: nameOf(rig.sources, voice),
        });
  const heard = [level, sayTime(rig, cell), ownTrack ? plan.aloneOnTrack() : ''].filter(Boolean);
  return plan.requirement({
    source: nameOf(rig.sources, sourceId),
    destination: nameOf(rig.listeners, listenerId),
    what: [wantOf(want).says, ...(want === 'must-not' ? [] : heard)].join(', '),
  });
}

/** 'Pedal, Keying: radio A' */
export function saySetting(
  rig: Rig,
  {
    deviceId,
    settingId,
    to,
  }: { readonly deviceId: string; readonly settingId: string; readonly to: Parameters<typeof sayValue>[1] },
): string {
  const spec = findSetting(rig, findTypes(rig), deviceId, settingId);
  return `${deviceName(rig, deviceId)}, ${spec?.name ?? settingId}: ${sayValue(spec, to)}`;
}

const CHANGES = {
  starts: plan.startsAt,
  stops: plan.stopsAt,
  louder: plan.louderAt,
  quieter: plan.quieterAt,
  later: plan.laterAt,
  earlier: plan.earlierAt,
} as const;

/** What arrives differently in another moment: one line for each source and change, with all destinations. */
export function sayChanges(rig: Rig, changes: readonly PairChange[]): string[] {
  const lines = new Map<string, { sourceId: string; says: PairChange['says']; listenerIds: string[] }>();
  for (const { sourceId, listenerId, says } of changes) {
    const key = `${sourceId} ${says}`;
    const line = lines.get(key) ?? { sourceId, says, listenerIds: [] };
    line.listenerIds.push(listenerId);
    lines.set(key, line);
  }
  return [...lines.values()].map(({ sourceId, says, listenerIds }) =>
    CHANGES[says]({
      source: nameOf(rig.sources, sourceId),
      destinations: listenerIds.map((id) => common.quoted({ name: nameOf(rig.listeners, id) })).join(', '),
    }),
  );
}
