import {
  applyEdit,
  drawSettings,
  type Edit,
  findTypes,
  type Rig,
  settingKey,
  sourceIn,
} from '#core/model/rig/index.ts';
import { setTheGains } from '#core/routing/suggest/index.ts';
import { type Evaluation, evaluate, mainVoiceOf, type Pair, rolesOf } from '#core/signal/index.ts';

/** How far under the main voice one begins with the others, dB: the middle of what is usual (typical). */
const UNDER_VOICE_DB: Readonly<Record<string, number>> = {
  'second-voice': 0.5,
  'far-voice': 2,
  'radio-voice': 2,
  game: 11,
  music: 17,
  other: 11,
};
const MAX_SOURCES = 12;
const SIDES = 2;

type Listener = Rig['listeners'][number];

/** Whose balance is set first: the program mix, else the mix of the main listener. */
function listenerFor(rig: Rig, { pairs }: Evaluation, sourceId: string): Listener | null {
  const roles = rolesOf(rig);
  const rank = (l: Listener) => ['mix', 'room', 'track', 'far-ears', 'radio-ears', 'ears'].indexOf(roles.listener(l));
  const hearing = rig.listeners.filter((l) => {
    const pair = pairs.find((p) => p.sourceId === sourceId && p.listenerId === l.id);
    return pair !== undefined && pair.want !== 'must-not' && pair.ways.length > 0;
  });
  return hearing.sort((a, b) => rank(a) - rank(b))[0] ?? null;
}

const levelOf = (pairs: readonly Pair[], sourceId: string | null, listenerId: string): number | null =>
  pairs.find((p) => p.sourceId === sourceId && p.listenerId === listenerId)?.ways[0]?.levelDb.nominal ?? null;

/**
 * Levels as one sets them before anyone has spoken: each voice by its own gain to the usual average, then every other
 * source under it. Only controls of the devices named are turned; all of it is assumed. An empty list where nothing is
 * heard yet.
 */
export function startingLevels(rig: Rig, deviceIds: ReadonlySet<string>): Edit[] {
  const roles = rolesOf(rig);
  const voice = mainVoiceOf(rig);
  const isVoice = (id: string) => roles.source(sourceIn(rig, id)).endsWith('voice');
  const order = [...rig.sources.map((s) => s.id)]
    .sort((a, b) => Number(b === voice) - Number(a === voice) || Number(isVoice(b)) - Number(isVoice(a)))
    .slice(0, MAX_SOURCES);
  const types = findTypes(rig);
  // Settings that someone made, and of devices already on the desk, are left as they are.
  const held = new Set(
    rig.devices.flatMap((d) => {
      const ids = deviceIds.has(d.id) ? Object.keys(d.settings) : types.get(d.typeId)!.settings.map((s) => s.id);
      return ids.map((id) => settingKey(d.id, id));
    }),
  );
  const edits: Edit[] = [];
  let now = rig;
  /** Sets the loudest way of a source right; whether anything was turned. */
  const turn = (sourceId: string): boolean => {
    const evaluation = evaluate(now);
    const listener = listenerFor(now, evaluation, sourceId);
    if (!listener) return false;
    const role = roles.source(sourceIn(rig, sourceId));
    const voiceDb = sourceId === voice ? null : levelOf(evaluation.pairs, voice, listener.id);
    const under = UNDER_VOICE_DB[role];
    const aimDb = voiceDb !== null && under !== undefined ? voiceDb - under : undefined;
    const found = setTheGains(now, evaluation, {
      sourceId,
      listenerId: listener.id,
      ...(aimDb !== undefined && { aimDb }),
      held: [...held],
    });
    const changes = (found?.changes ?? []).filter((c) => deviceIds.has(c.deviceId));
    if (changes.length === 0) return false;
    const made = drawSettings(changes);
    const done = applyEdit(now, made);
    if (!done.ok) return false;
    now = done.rig;
    edits.push(made);
    // What one source stands right by is not turned for the next.
    for (const c of changes) held.add(settingKey(c.deviceId, c.settingId));
    return true;
  };
  // Left and right may have separate gains: once the louder one is set, the other may be the louder.
  for (const sourceId of order) for (let side = 0; side < SIDES && turn(sourceId); side++);
  return edits;
}
