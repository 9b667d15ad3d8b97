import type { Text } from '#core/base/said/index.ts';
import {
  type Cable,
  type DeviceType,
  type Edit,
  endsThat,
  films,
  isCall,
  isPerson,
  isWorn,
  type PortRef,
  type PortSpec,
  portKey,
  portOf,
  records,
  sameEnd,
  settingFor,
} from '#core/model/rig/index.ts';
import type { TypedUse } from '#core/routing/wiring/index.ts';
import { evaluate } from '#core/signal/index.ts';
import {
  carriesWhat,
  downstream,
  type End,
  endsOf,
  hearsToo,
  hostsOf,
  isFedByLead,
  isHeadset,
  isMicrophone,
  listenRank,
  programsOn,
  upstream,
} from './around.ts';
import type { Builder, Choice } from './builder.ts';
import { type Pair, pairsAt } from './channels.ts';
import { openBetween } from './doors.ts';
import type { Answers } from './questions.ts';
import { say } from './sayings.ts';

const has = ({ channels }: PortSpec, carries: 'sound' | 'picture'): boolean =>
  channels.some((c) => c.carries === carries);

/** What streams, what joins a call, what records, and what makes sound, on one computer. */
export function connectPrograms(b: Builder, uses: readonly TypedUse[], answers: Answers): void {
  for (const hostId of hostsOf(b.rig)) {
    const programs = programsOn(b.rig, hostId);
    const of = (suits: (type: DeviceType) => boolean) => programs.filter((id) => suits(b.typeOf(id)));
    for (const id of of(isCall)) connectCall(b, hostId, id, uses, answers);
    for (const id of of(makesSound)) playSound(b, hostId, id);
    for (const id of of((t) => endsThat(t, 'stream').length > 0)) connectStream(b, hostId, id, uses, answers);
    for (const id of of((t) => records(t) && endsThat(t, 'stream').length === 0)) connectRecorder(b, hostId, id, uses);
  }
}

const makesSound = (type: DeviceType): boolean =>
  type.ports.some((p) => p.direction === 'out' && (p.does === 'game' || p.does === 'music'));

const isLinked = (b: Builder, ref: PortRef): boolean =>
  b.rig.cables.some((c) => sameEnd(c.from, ref) || sameEnd(c.to, ref));
const at = (deviceId: string, { id }: PortSpec): PortRef => ({ deviceId, portId: id });
const nameOf = (b: Builder, end: End): string => b.device(end.deviceId).name;

/** Voices first that a program was said to use, then headsets for a call, then others as they were plugged. */
function voicesInto(b: Builder, hostId: string, programId: string, uses: readonly TypedUse[]): End[] {
  const said = new Set(uses.filter((u) => u.programId === programId).flatMap((u) => [...hardwareOf(b, u.deviceId)]));
  const ends = endsOf(b.rig, hostId, 'in').filter(
    (e) => e.sound && (e.deviceId === hostId || carriesWhat(b.rig, e.deviceId) === 'voice'),
  );
  const rank = (e: End): number =>
    e.deviceId === hostId ? 3 : said.has(e.deviceId) ? 0 : isHeadset(b.typeOf(e.deviceId)) ? 1 : 2;
  return ends.sort((x, y) => rank(x) - rank(y));
}

const hardwareOf = (b: Builder, deviceId: string): ReadonlySet<string> => {
  const down = new Set([deviceId]);
  for (const d of b.rig.devices) if (upstream(b.rig, d.id).has(deviceId)) down.add(d.id);
  return down;
};

/** What a call may take for its microphone, the best first. */
export const callMicrophones = (b: Builder, hostId: string, callId: string, uses: readonly TypedUse[]): End[] => {
  const all = voicesInto(b, hostId, callId, uses);
  const plugged = all.filter((e) => e.deviceId !== hostId);
  return plugged.length > 0 ? plugged : all;
};

const voicesOf = (b: Builder): ReadonlySet<string> =>
  new Set(b.rig.sources.filter((s) => isPerson(b.typeOf(s.sound.deviceId))).map((s) => s.id));

function connectCall(b: Builder, hostId: string, callId: string, uses: readonly TypedUse[], answers: Answers): void {
  const type = b.typeOf(callId);
  const call = b.device(callId).name;
  const [mic] = endsThat(type, 'call-microphone');
  const [speaker] = endsThat(type, 'call-loudspeaker');
  const mics = callMicrophones(b, hostId, callId, uses);
  const chosen = mics.find((e) => e.deviceId === answers.get(`call-mic:${callId}`)) ?? mics[0];
  const speakers = listening(b, hostId);
  const own =
    chosen && speakers.find((s) => s.deviceId === chosen.deviceId && listenRank(b.rig, s.deviceId, hostId) === 0);
  const out = own ?? speakers[0];
  const link = (from: End, to: PortRef): Edit => {
    // A voice may come on later channels than the first two.
    const heard = pairsAt(b.rig, from.ref);
    const voices = voicesOf(b);
    const most = (p: Pair) => [...p.sources].filter((s) => voices.has(s)).length;
    const [best] = [...heard].sort((x, y) => most(y) - most(x) || x.number - y.number);
    const made = b.link(from.ref, to);
    return made.kind === 'plug' && mic && best && best.number > 1 && most(best) > 0
      ? { ...made, cable: { ...made.cable, map: mapOf(best, mic) } }
      : made;
  };
  const micRef = mic && at(callId, mic);
  const speakerRef = speaker && at(callId, speaker);
  const takesMic = micRef && chosen && !isLinked(b, micRef);
  const playsOut = speakerRef && out && !isLinked(b, speakerRef);
  if (takesMic && playsOut && chosen.deviceId === out.deviceId)
    b.make(`call:${callId}`, say.usesForBoth({ call, device: nameOf(b, chosen) }), () => [
      link(chosen, micRef),
      b.link(speakerRef, out.ref),
    ]);
  else {
    if (takesMic)
      b.make(`call-mic:${callId}`, say.usesForMic({ call, device: nameOf(b, chosen) }), () => [link(chosen, micRef)]);
    if (playsOut) {
      const others = speakers.filter((s) => s !== out);
      const { one, choice } = b.choose(`call-speaker:${callId}`, asOptions(b, [out, ...others]))!;
      const says = say.playsTo({ who: call, to: one.label });
      b.make(`call-speaker:${callId}`, says, () => [b.link(speakerRef, one.ref)], { choice });
      spareOthers(b, hostId, callId, one);
    }
  }
  const camera = endsOf(b.rig, hostId, 'in').find(
    (e) =>
      e.picture && (films(b.typeOf(e.deviceId)) || [...upstream(b.rig, e.deviceId)].some((d) => films(b.typeOf(d)))),
  );
  // One program at a time gets the picture of a camera.
  const streams = programsOn(b.rig, hostId).some((p) => endsThat(b.typeOf(p), 'stream').length > 0);
  const view = type.ports.find(
    (p) => p.direction === 'in' && p.does === undefined && has(p, 'picture') && !has(p, 'sound'),
  );
  if (camera && view && !streams && !isLinked(b, at(callId, view)))
    b.make(`call-camera:${callId}`, say.usesForCamera({ call, device: nameOf(b, camera) }), () => [
      b.link(camera.ref, at(callId, view)),
    ]);
}

const asOptions = (b: Builder, ends: readonly End[]): (End & { id: string; label: string })[] =>
  ends.map((end) => ({ ...end, id: portKey(end.ref.deviceId, end.ref.portId), label: nameOf(b, end) }));

/** Where what programs play is listened to, the nearest to the ears first. */
const listening = (b: Builder, hostId: string): End[] =>
  endsOf(b.rig, hostId, 'out')
    .filter((e) => e.sound)
    .map((end, i) => ({ end, rank: listenRank(b.rig, end.deviceId, hostId), i }))
    .filter((e) => e.rank < 5)
    .sort((x, y) => x.rank - y.rank || x.i - y.i)
    .map((e) => e.end);

/** A game or music that nothing takes yet: its sound where one listens, its picture where one looks. */
function playSound(b: Builder, hostId: string, id: string): void {
  const type = b.typeOf(id);
  const sound = type.ports.find((p) => p.direction === 'out' && (p.does === 'game' || p.does === 'music'))!;
  const picture = type.ports.find((p) => p.direction === 'out' && has(p, 'picture') && p !== sound);
  const name = b.device(id).name;
  const streamsHere = programsOn(b.rig, hostId).some((p) => endsThat(b.typeOf(p), 'stream').length > 0);
  const screens = endsOf(b.rig, hostId, 'out').filter((e) => e.picture);
  const [screen] = screens;
  // Where it is streamed from another computer, its sound has to leave by the picture's lead as well.
  const heard = b.choose(`plays:${id}`, asOptions(b, listening(b, hostId)));
  const plays = (madeId: string, end: End, choice: Choice | null) =>
    b.make(madeId, say.playsTo({ who: name, to: nameOf(b, end) }), () => [b.link(at(id, sound), end.ref)], { choice });
  if (heard) {
    plays(`plays:${id}`, heard.one, heard.choice);
    spareOthers(b, hostId, id, heard.one);
  }
  const [byPicture] = streamsHere ? [] : screens.filter((e) => e.sound);
  if (byPicture && !(heard && sameEnd(heard.one.ref, byPicture.ref)))
    plays(`plays:${id}:${byPicture.deviceId}`, byPicture, null);
  if (picture && screen && !isLinked(b, at(id, picture)))
    b.make(`shows:${id}`, say.shownOn({ what: name, screen: nameOf(b, screen) }), () => [
      b.link(at(id, picture), screen.ref),
    ]);
}

/** Where what a program plays goes elsewhere than to what is worn, what is worn does without. */
function spareOthers(b: Builder, hostId: string, id: string, { deviceId }: End): void {
  if (deviceId !== hostId && [...downstream(b.rig, deviceId)].some((d) => isWorn(b.typeOf(d)))) return;
  const worn = b.rig.listeners.filter((l) => isWorn(b.typeOf(l.sound.deviceId)));
  for (const source of b.rig.sources.filter((s) => s.sound.deviceId === id || isHeardBy(b, s.sound.deviceId, id)))
    for (const listener of worn) b.spared.push({ sourceId: source.id, listenerId: listener.id });
}

/** An input of a program: the ways from it, and the files that each of them ends in. */
const inputsOf = (type: DeviceType): PortSpec[] =>
  type.ports.filter(
    (p) => p.direction === 'in' && p.connector === 'software' && has(p, 'sound') && p.does === undefined,
  );

const freeInputs = (b: Builder, programId: string): PortSpec[] =>
  inputsOf(b.typeOf(programId)).filter((p) => !isLinked(b, at(programId, p)));

/** A track of its own besides the mix, where the program has tracks: the doors that stand shut on the way there. */
function ownTrack(b: Builder, programId: string, input: PortSpec, number: number): OwnTrack | null {
  const track = b.typeOf(programId).ports.filter((p) => p.connector === 'file')[number];
  const edits = track ? openBetween(b, programId, input.id, track.id) : [];
  return track && edits.length > 0 ? { edits, track: track.name } : null;
}

function connectStream(b: Builder, hostId: string, id: string, uses: readonly TypedUse[], answers: Answers): void {
  const program = b.device(id).name;
  const order = { game: 0, voice: 1, other: 2 };
  const said = new Set(uses.filter((u) => u.programId === id).map((u) => u.deviceId));
  const arrivals = endsOf(b.rig, hostId, 'in').filter((e) => e.deviceId !== hostId && (e.sound || e.picture));
  const cameras = (e: End) => [...upstream(b.rig, e.deviceId)].filter((d) => films(b.typeOf(d)));
  const isCamera = (e: End) => cameras(e).length > 0;
  const sorted = arrivals
    .map((end) => ({ end, kind: carriesWhat(b.rig, end.deviceId) }))
    .sort((x, y) => order[x.kind] - order[y.kind] || Number(isCamera(x.end)) - Number(isCamera(y.end)));
  const voices = sorted.filter((s) => s.kind === 'voice' && !isCamera(s.end));
  const hasMic = (headset: string) =>
    voices.some(({ end }) => !isHeadset(b.typeOf(end.deviceId)) && sharesTalker(b, headset, end.deviceId));
  for (const { end } of sorted) {
    const type = b.typeOf(end.deviceId);
    // Someone with a microphone of their own is not recorded twice.
    if (isHeadset(type) && !said.has(end.deviceId) && hasMic(end.deviceId)) continue;
    takeInput(b, id, program, end, {
      apart: false,
      own: !isCamera(end),
      muted: voices.length > 0 ? cameras(end).filter((d) => hearsToo(b.typeOf(d)) && !isFedByLead(b.rig, d)) : [],
    });
  }
  if (voices.length === 0 && sorted.every((s) => s.kind !== 'voice')) {
    const own = endsOf(b.rig, hostId, 'in').find((e) => e.deviceId === hostId && e.sound);
    if (own) takeInput(b, id, program, own, { own: true, muted: [], apart: false });
  }
  for (const other of programsOn(b.rig, hostId)) takeProgram(b, id, program, other, answers);
}

/** Whether someone who talks into one device also talks into what arrives through another; without assigned seats, they may. */
function sharesTalker(b: Builder, one: string, other: string): boolean {
  const talkers = (ids: ReadonlySet<string>) =>
    b.rig.cables.filter((c) => c.medium === 'air' && ids.has(c.to.deviceId)).map((c) => c.from.deviceId);
  const here = talkers(new Set([one])).filter((id) => isPerson(b.typeOf(id)));
  return here.length === 0 || talkers(upstream(b.rig, other)).some((id) => here.includes(id));
}

interface OwnTrack {
  readonly edits: Edit[];
  readonly track: string;
}
/** With a track of its own, where there is one, unless someone wants it in the mix only. */
function trackChoice(b: Builder, made: string, track: OwnTrack | null) {
  const mixed = { id: 'mix', label: say.inMixOnly(), own: null };
  const own = track && { id: 'own', label: say.onOwnTrackToo({ track: track.track }), own: track };
  const { one, choice } = b.choose<{ own: OwnTrack | null }>(made, own ? [own, mixed] : [mixed])!;
  return { own: one.own, choice };
}

interface Taken {
  /** Whether it gets a track of its own. */
  readonly own: boolean;
  /** Cameras whose own microphones are shut: others are there. */
  readonly muted: readonly string[];
  /** Whether each source is wanted on its own, rather than in a mix. */
  readonly apart: boolean;
}

/** An input of a program takes a device; further inputs take the later pairs of its channels, where those bring more. */
function takeInput(b: Builder, id: string, program: string, end: End, taken: Taken): void {
  if (b.rig.cables.some((c) => sameEnd(c.from, end.ref) && c.to.deviceId === id)) return;
  const pairs = end.sound ? pairsAt(b.rig, end.ref) : [];
  const known = sourcesFrom(b, end.deviceId, id);
  const fresh: Pair[] = [];
  for (const pair of taken.apart ? [...pairs].sort((x, y) => x.sources.size - y.sources.size) : pairs) {
    if ([...pair.sources].every((s) => known.has(s))) continue;
    for (const s of pair.sources) known.add(s);
    fresh.push(pair);
  }
  if (pairs.length > 0 && fresh.length === 0 && !end.picture) return;
  const isPlain = fresh.length === 0 || (fresh.length === 1 && fresh[0]!.number === 1);
  if (isPlain) takePair(b, id, program, end, taken, null);
  else for (const pair of fresh.sort((x, y) => x.number - y.number)) takePair(b, id, program, end, taken, pair);
}

/** What a program has already of a device. */
function sourcesFrom(b: Builder, deviceId: string, programId: string): Set<string> {
  const host = b.device(programId).on;
  const refs = host ? endsOf(b.rig, host, 'in').filter((e) => e.deviceId === deviceId) : [];
  const taken = refs.filter(({ ref }) => b.rig.cables.some((c) => sameEnd(c.from, ref) && c.to.deviceId === programId));
  return new Set(taken.flatMap(({ ref }) => pairsAt(b.rig, ref).flatMap((p) => [...p.sources])));
}

/** Two channels to the two sides of an input; one that is alone to both, and two voices that share nothing to both in a mix. */
const mapOf = ({ channels, on }: Pair, input: PortSpec, isMixed = false): Cable['map'] => {
  const used = channels.filter((_, i) => on[i]!.size > 0);
  const sides = input.channels.filter((c) => c.carries === 'sound').map((c) => c.id);
  if (isMixed && used.length === 2 && ![...on[0]!].some((s) => on[1]!.has(s)))
    return used.flatMap((from) => sides.map((to) => ({ from, to })));
  return sides.map((to, i) => ({ from: used[Math.min(i, used.length - 1)]!, to }));
};

function takePair(
  b: Builder,
  id: string,
  program: string,
  end: End,
  { own: wantsTrack, muted, apart }: Taken,
  pair: Pair | null,
): void {
  const [input] = freeInputs(b, id);
  if (!input) return;
  const number = inputsOf(b.typeOf(id)).indexOf(input) + 1;
  const isFirst = sourcesFrom(b, end.deviceId, id).size === 0;
  const made = `stream:${id}:${end.deviceId}${isFirst ? '' : `:${end.ref.portId}:${pair?.number ?? 1}`}`;
  const { own, choice } = trackChoice(b, made, wantsTrack ? ownTrack(b, id, input, number) : null);
  const atCamera = muted.flatMap((d) => {
    const spec = settingFor(b.typeOf(d), 'own-microphone');
    return spec ? [b.set(d, spec.id, true)] : [];
  });
  const mute = muted.length > atCamera.length ? muteOf(b.typeOf(id), input) : null;
  const note = muted.length > 0 ? say.videoMicMuted() : noteOn(end.picture, own);
  const name = end.deviceId === end.ref.deviceId ? say.ownMicOf({ device: nameOf(b, end) }) : nameOf(b, end);
  const what = pair ? say.channelsOf({ name, first: 2 * pair.number - 1, second: 2 * pair.number }) : name;
  const edits = () => {
    const link = b.link(end.ref, at(id, input));
    const mapped: Edit =
      pair && link.kind === 'plug' ? { ...link, cable: { ...link.cable, map: mapOf(pair, input, !apart)! } } : link;
    return [mapped, ...(own?.edits ?? []), ...atCamera, ...(mute ? [b.set(id, mute.setting, mute.value)] : [])];
  };
  b.make(made, say.takesAsInput({ app: program, what, number }), edits, { choice, note });
}

/** Inputs, and where they go besides the mix. */
function noteOn(isPicture: boolean, own: OwnTrack | null): Text {
  if (own) return isPicture ? say.videoAudioOnTrack({ track: own.track }) : say.onOwnTrack({ track: own.track });
  return isPicture ? say.videoAndAudio() : '';
}

/** The setting that shuts all sound of an input. */
function muteOf(type: DeviceType, input: PortSpec): { setting: string; value: boolean } | null {
  const mutes = type.settings.filter((s) => s.kind === 'mute' && s.default === false);
  for (const spec of mutes) {
    const ways = type.inside.filter((w) => w.stages.some((s) => s.do === 'door' && s.setting === spec.id));
    if (ways.length > 0 && ways.every((w) => portOf(w.from) === input.id)) return { setting: spec.id, value: true };
  }
  return null;
}

/** What another program of the computer plays: a game with its picture, music, and who is on a call where the stream is to hear them. */
function takeProgram(b: Builder, id: string, program: string, other: string, answers: Answers): void {
  const type = b.typeOf(other);
  const call = endsThat(type, 'call-loudspeaker')[0];
  const sound = call ?? type.ports.find((p) => p.direction === 'out' && (p.does === 'game' || p.does === 'music'));
  if (!sound || b.rig.cables.some((c) => c.from.deviceId === other && c.to.deviceId === id)) return;
  if (call && answers.get(`stream-hears:${other}`) === 'no') return;
  if (reachesStream(b, other, id)) return;
  const [input] = freeInputs(b, id);
  if (!input) return;
  const picture = type.ports.find((p) => p.direction === 'out' && p.does === undefined && has(p, 'picture') && !call);
  const number = inputsOf(b.typeOf(id)).indexOf(input) + 1;
  const made = `stream:${id}:${other}`;
  const { own, choice } = trackChoice(b, made, ownTrack(b, id, input, number));
  const says = say.takesAsInput({ app: program, what: b.device(other).name, number });
  const edits = () => [
    b.link(at(other, sound), at(id, input)),
    ...(picture ? [b.link(at(other, picture), at(id, input))] : []),
    ...(own?.edits ?? []),
  ];
  b.make(made, says, edits, { choice, note: noteOn(picture !== undefined, own) });
}

/** Whether an app's audio already reaches the stream, through a mixer it plays to. */
function reachesStream(b: Builder, other: string, id: string): boolean {
  const { pairs } = evaluate(b.rig);
  const sources = b.rig.sources
    .filter((s) => s.sound.deviceId === other || isHeardBy(b, s.sound.deviceId, other))
    .map((s) => s.id);
  const ends = b.rig.listeners.filter((l) => l.sound.deviceId === id).map((l) => l.id);
  return pairs.some((p) => sources.includes(p.sourceId) && ends.includes(p.listenerId) && p.ways.length > 0);
}

/** Whether someone talks to the far side of a call. */
const isHeardBy = (b: Builder, personId: string, callId: string): boolean =>
  b.rig.cables.some(
    (c) =>
      c.medium === 'air' &&
      c.from.deviceId === personId &&
      b.rig.cables.some((l) => l.from.deviceId === c.to.deviceId && l.to.deviceId === callId),
  );

/** An app that records captures every voice separately, and everything else that arrives. */
function connectRecorder(b: Builder, hostId: string, id: string, uses: readonly TypedUse[]): void {
  const program = b.device(id).name;
  const plugged = voicesInto(b, hostId, id, uses).filter((e) => e.deviceId !== hostId);
  const others = endsOf(b.rig, hostId, 'in').filter(
    (e) =>
      e.sound &&
      e.deviceId !== hostId &&
      !plugged.some((p) => sameEnd(p.ref, e.ref)) &&
      !isMicrophone(b.typeOf(e.deviceId)),
  );
  const own = endsOf(b.rig, hostId, 'in').filter((e) => e.sound && e.deviceId === hostId);
  const all = [...plugged, ...others];
  for (const end of all.length > 0 ? all : own) takeInput(b, id, program, end, { own: true, muted: [], apart: true });
  for (const other of programsOn(b.rig, hostId)) takeProgram(b, id, program, other, new Map());
}
