import { z } from 'zod';
import type { Part } from '#core/audio/mix/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { rolesOf, type SourceRole } from '#core/signal/index.ts';
import type { TakeFacts } from '#web/shared/workers/index.ts';
import { mix as say } from '#words/index.ts';

const Track = z.strictObject({
  name: z.string().max(120),
  take: z.int().min(0),
  channels: z.union([z.tuple([z.int().min(0)]), z.tuple([z.int().min(0), z.int().min(0)])]),
  part: z.enum(['main', 'voice', 'bed', 'out']),
  underLu: z.number().min(-20).max(60),
  /** The fader as someone set it by hand, dB; null: as it is found. */
  ownDb: z.number().min(-80).max(60).nullable(),
});

/** What a person says of the tracks, and what is aimed at. */
export const MixSetup = z.strictObject({
  tracks: z.array(Track).max(64),
  targetLufs: z.number().min(-40).max(0),
  /** Null: nothing is limited. */
  ceilingDbtp: z.number().min(-12).max(0).nullable(),
  ride: z.boolean(),
  duckDb: z.number().min(0).max(24).default(0),
});
export type MixSetup = z.infer<typeof MixSetup>;
export type MixTrackSetup = MixSetup['tracks'][number];

/** Starting distances under the main voice, LU (typical), and what the track is then. */
const STARTS: Record<SourceRole, { readonly part: Part; readonly underLu: number }> = {
  voice: { part: 'main', underLu: 0 },
  'second-voice': { part: 'voice', underLu: 1 },
  'far-voice': { part: 'voice', underLu: 2 },
  'radio-voice': { part: 'voice', underLu: 2 },
  game: { part: 'bed', underLu: 11 },
  music: { part: 'bed', underLu: 17 },
  other: { part: 'bed', underLu: 12 },
};

/** Words in the name of a track that tell its role, where no rig does. */
const WORDS: readonly (readonly [RegExp, SourceRole])[] = [
  [/game|console|desktop|pc\b/i, 'game'],
  [/music|jingle|song|phone/i, 'music'],
  [/call|guest|remote/i, 'far-voice'],
  [/voice|mic|host|talk|lapel|speak/i, 'second-voice'],
  [/room|camera|air|atmo/i, 'other'],
];

/** The source of the rig that a track's name speaks of. */
export const sourceOfTrack = (rig: Rig | null, name: string) =>
  rig?.sources.find((s) => s.name.toLowerCase() === name.trim().toLowerCase()) ??
  rig?.sources.find((s) => name.toLowerCase().includes(s.id.replaceAll('-', ' ')));

const TARGET_LUFS = -16;
export const CEILING_DBTP = -1;

/**
 * What the tracks are at first: by the sources of the rig that they are named after, else by their names; the first
 * voice is the main one. A file of two channels is one track, any other is one a channel.
 */
export function firstSetup(facts: readonly TakeFacts[], takeNames: readonly string[], rig: Rig | null): MixSetup {
  type Named = Pick<MixTrackSetup, 'name' | 'take' | 'channels'>;
  const named = facts.flatMap(({ channels, trackNames }, take): Named[] => {
    const takeName = (takeNames[take] ?? say.take({ n1: take + 1 })).replace(/\.\w+$/, '');
    if (channels === 2 && !trackNames.some(Boolean)) return [{ name: takeName, take, channels: [0, 1] }];
    return Array.from({ length: channels }, (_, c) => ({
      name: trackNames[c] || (channels === 1 ? takeName : say.trackWith({ takeName, n1: c + 1 })),
      take,
      channels: [c],
    }));
  });
  const roles = named.map(({ name }): SourceRole => {
    const source = sourceOfTrack(rig, name);
    return source && rig ? rolesOf(rig).source(source) : (WORDS.find(([words]) => words.test(name))?.[1] ?? 'other');
  });
  const isVoice = (role: SourceRole) => STARTS[role].part !== 'bed';
  const first = roles.includes('voice') ? roles.indexOf('voice') : roles.findIndex(isVoice);
  // Where no name speaks of a voice, the first track is it: someone has to be.
  const main = Math.max(0, first);
  return {
    tracks: named.slice(0, 64).map(({ name, take, channels }, i) => ({
      name,
      take,
      channels,
      ...(i === main ? STARTS.voice : STARTS[roles[i]!]),
      ownDb: null,
    })),
    targetLufs: TARGET_LUFS,
    ceilingDbtp: CEILING_DBTP,
    ride: true,
    duckDb: 0,
  };
}

/** One track changed; where it becomes the main voice, the one before becomes another voice. */
export function withTrack(setup: MixSetup, index: number, change: Partial<MixTrackSetup>): MixSetup {
  return {
    ...setup,
    tracks: setup.tracks.map((t, i) => {
      if (i === index) return { ...t, ...change, ...(change.part === 'main' ? { underLu: 0 } : {}) };
      return change.part === 'main' && t.part === 'main' ? { ...t, ...STARTS['second-voice'] } : t;
    }),
  };
}

/** Two neighboring channels of one take joined as left and right, or parted again. */
export function joinedWithNext(setup: MixSetup, index: number): MixSetup {
  const { tracks } = setup;
  const [track, next] = [tracks[index], tracks[index + 1]];
  if (!track) return setup;
  if (track.channels.length === 2) {
    const [left, right] = track.channels;
    const parted: MixTrackSetup[] = [
      { ...track, channels: [left] },
      { ...track, name: say.right({ track: track.name }), channels: [right] },
    ];
    return { ...setup, tracks: [...tracks.slice(0, index), ...parted, ...tracks.slice(index + 1)] };
  }
  if (!next || next.take !== track.take || next.channels.length !== 1) return setup;
  const joined: MixTrackSetup = { ...track, channels: [track.channels[0], next.channels[0]] };
  return { ...setup, tracks: [...tracks.slice(0, index), joined, ...tracks.slice(index + 2)] };
}
