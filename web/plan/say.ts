import { findSetting, findTypes, type PlanCell, type Rig, sayValue } from '#core/rig/index.ts';
import { deviceName, mainVoiceOf, type PairChange } from '#core/signal/index.ts';
import { sayUnder, wantOf } from '#web/parts/index.ts';

const nameOf = (list: readonly { readonly id: string; readonly name: string }[], id: string): string =>
  list.find((e) => e.id === id)?.name ?? id;

/** Whether the plan speaks of the very picture, or of another source that it has to keep time with; or of none. */
export function sayTime(rig: Rig, { sourceId, inTimeWith, keepTime }: PlanCell): string {
  if (keepTime === false) return 'at any time';
  return inTimeWith && inTimeWith !== sourceId ? `in time with ${nameOf(rig.sources, inTimeWith)}` : '';
}

/** A want in one sentence. */
export function sayWant(rig: Rig, cell: PlanCell): string {
  const { sourceId, listenerId, want, underVoiceDb, ownTrack } = cell;
  const start = `${nameOf(rig.listeners, listenerId)} ${wantOf(want).word} hear ${nameOf(rig.sources, sourceId)}`;
  if (want === 'must-not') return `${start}.`;
  const voice = mainVoiceOf(rig);
  const more = [
    underVoiceDb === undefined || voice === null
      ? ''
      : `${sayUnder(underVoiceDb)} ${underVoiceDb === 0 ? 'as ' : ''}${nameOf(rig.sources, voice)}`,
    sayTime(rig, cell),
    ownTrack ? 'alone on its track' : '',
  ].filter(Boolean);
  return `${[start, ...more].join(', ')}.`;
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

const VERBS: Record<PairChange['says'], string> = {
  starts: 'is heard by',
  stops: 'is not heard any more by',
  louder: 'is louder at',
  quieter: 'is quieter at',
  later: 'comes later to',
  earlier: 'comes earlier to',
};

/** What is heard otherwise in another moment: one line for each source and verb, with all listeners. */
export function sayChanges(rig: Rig, changes: readonly PairChange[]): string[] {
  const lines = new Map<string, string[]>();
  for (const { sourceId, listenerId, says } of changes) {
    const key = `${nameOf(rig.sources, sourceId)} ${VERBS[says]} `;
    lines.set(key, [...(lines.get(key) ?? []), nameOf(rig.listeners, listenerId)]);
  }
  return [...lines].map(([start, who]) => `${start}${who.join(', ')}`);
}
