import type { Text } from '#core/base/said/index.ts';
import { findDevice, findTypes, isCall, listenerIn, type Rig, sourceIn } from '#core/model/rig/index.ts';
import type { Figure } from '#core/model/units/index.ts';
import {
  delayMeasurements,
  deviceName,
  difference,
  type Evaluation,
  type Pair,
  type ReceivedPath,
  rolesOf,
  type State,
  settle,
} from '#core/signal/index.ts';
import { say } from './sayings.ts';

/** A delay that someone has to live with while it goes on: not what is recorded, but what is heard. */
export interface ListeningDelay {
  readonly kind: 'play' | 'own-voice' | 'conversation' | 'together';
  /** Whose ears. */
  readonly listenerId: string;
  /** What is heard; of two that have to keep time, the one that comes later first. */
  readonly sourceIds: readonly string[];
  readonly delay: Figure;
  /** Up to here it is good, from there on it is not borne, ms. */
  readonly goodMs: number;
  readonly badMs: number;
  readonly source: Text;
  readonly state: State;
  readonly says: Text;
}

/** What is borne, by what one does meanwhile (numbers as practiced, where no standard says). */
const LIMITS = {
  play: { goodMs: 40, badMs: 100, source: say.gameAudioForPlayer() },
  'own-voice': { goodMs: 3, badMs: 15, source: say.ownVoiceInHeadphones() },
  conversation: { goodMs: 150, badMs: 400, source: say.ituTGOne() },
  together: { goodMs: 25, badMs: 50, source: say.playingTogetherRuleThumb() },
} as const;

/** An early return this far below one's own voice in the head is masked, dB (typical); later than this, ms, it is judged as an echo. */
const MASKED_DB = 20;
const ECHO_MS = 30;

const SAYS: Record<ListeningDelay['kind'], Record<'good' | 'watch' | 'fix', Text>> = {
  play: {
    good: say.fastEnoughToPlay(),
    watch: say.quickPlayerNoticesIt(),
    fix: say.tooLateToPlay(),
  },
  'own-voice': {
    good: say.likeTalkingInRoom(),
    watch: say.itSoundsHollowUse(),
    fix: say.distractingForSpeakerUse(),
  },
  conversation: {
    good: say.conversationWorksAsIn(),
    watch: say.peopleStartTalkingOver(),
    fix: say.noRealConversationOne(),
  },
  together: {
    good: say.theyStayInTime(),
    watch: say.beatDrags(),
    fix: say.theyCantStayIn(),
  },
};

/**
 * What everybody hears while it goes on, each against its limit: the player's own sound, the talker's own voice, what
 * two say to each other, and music that has to keep time with a voice.
 */
export function listeningDelays(rig: Rig, evaluation: Evaluation): ListeningDelay[] {
  const roles = rolesOf(rig);
  const sourceOf = (p: Pair) => sourceIn(rig, p.sourceId);
  const listenerOf = (p: Pair) => listenerIn(rig, p.listenerId);
  const heard = evaluation.pairs.filter((p) => p.ways[0] && p.want !== 'must-not');
  const found = heard.flatMap((pair): ListeningDelay[] => {
    const way = pair.ways[0]!;
    const [source, listener] = [sourceOf(pair), listenerOf(pair)];
    const [what, who] = [roles.source(source), roles.listener(listener)];
    const own = roles.isOwn(source, listener);
    if (who === 'ears' && what === 'game') return [judged('play', pair, [source.id], way.offset ?? way.delay)];
    if (own && who === 'ears') return ownVoice(pair, way, source.level[1]);
    const speaks = what === 'voice' || what === 'second-voice' || what === 'far-voice';
    const far = (who === 'far-ears') !== (what === 'far-voice');
    if (!own && speaks && far && (who === 'far-ears' || who === 'ears' || who === 'room'))
      return [judged('conversation', pair, [source.id], way.delay)];
    return [];
  });
  return [...found, ...together(rig, heard)];
}

function judged(kind: ListeningDelay['kind'], pair: Pair, sourceIds: readonly string[], delay: Figure): ListeningDelay {
  const { goodMs, badMs, source } = LIMITS[kind];
  const late = Math.abs(delay.value.nominal);
  const word = late <= goodMs ? 'good' : late < badMs ? 'watch' : 'fix';
  return {
    kind,
    listenerId: pair.listenerId,
    sourceIds,
    delay,
    goodMs,
    badMs,
    source,
    state: word,
    says: SAYS[kind][word],
  };
}

/** Own voice is reported where it returns early and loud enough to be heard beside the one in the head. */
function ownVoice(pair: Pair, way: ReceivedPath, levelDb: number): ListeningDelay[] {
  if (way.delay.value.nominal >= ECHO_MS || levelDb - way.levelDb.nominal >= MASKED_DB) return [];
  return [judged('own-voice', pair, [pair.sourceId], way.delay)];
}

/** Music relative to voice for everyone who hears both, where the two arrive by different paths. */
function together(rig: Rig, heard: readonly Pair[]): ListeningDelay[] {
  const roles = rolesOf(rig);
  const measurements = delayMeasurements(rig.measurements);
  return rig.listeners.flatMap((listener) => {
    const here = heard.filter((p) => p.listenerId === listener.id && p.want === 'must');
    const roleOf = (p: Pair) => roles.source(sourceIn(rig, p.sourceId));
    const voice = here.find((p) => roleOf(p) === 'voice');
    if (!voice) return [];
    return here
      .filter((p) => roleOf(p) === 'music')
      .map((music) => {
        const [m, v] = [music.ways[0]!, voice.ways[0]!];
        const apart = settle(measurements, say.musicVsVoice(), difference(m.soundTerms, v.soundTerms));
        const late = apart.value.nominal >= 0;
        const ids = late ? [music.sourceId, voice.sourceId] : [voice.sourceId, music.sourceId];
        const told = judged('together', music, ids, apart);
        return told.state === 'good'
          ? told
          : { ...told, says: say.withMend({ says: told.says, mend: mend(rig, m, v, late) }) };
      });
  });
}

/** Where the two ways meet, and what would bring them together before that. */
function mend(rig: Rig, music: ReceivedPath, voice: ReceivedPath, musicLate: boolean): Text {
  const types = findTypes(rig);
  const a = [...music.deviceIds].reverse();
  const b = [...voice.deviceIds].reverse();
  let common = 0;
  while (common < a.length && common < b.length && a[common] === b[common]) common++;
  const meetId = a[Math.max(0, common - 1)]!;
  const type = types.get(findDevice(rig, meetId)?.typeId ?? '');
  const where = deviceName(rig, meetId);
  if (type && isCall(type)) return say.theyEnterOverTwo({ where });
  const before = deviceName(rig, (musicLate ? b : a)[common] ?? meetId);
  return say.theyOnlyMeetAt({ where, before });
}
