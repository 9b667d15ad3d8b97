import { take as say } from '#words/index.ts';
/** Loudness target of a take: range in LUFS, its center, and where it is required. */
export const TARGETS = [
  { id: 'stream', name: say.streamToLufs(), range: [-16, -14], lufs: -15 },
  { id: 'speech', name: say.speechStereoLufs(), range: [-17, -15], lufs: -16 },
  { id: 'speech-mono', name: say.speechMonoLufs(), range: [-20, -18], lufs: -19 },
  { id: 'broadcast', name: say.broadcastLufsR(), range: [-23.5, -22.5], lufs: -23 },
] as const;
export type TargetId = (typeof TARGETS)[number]['id'];
