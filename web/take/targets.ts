/** What a take is to come out at, LUFS from quiet to loud, the middle of it, and where that is asked for. */
export const TARGETS = [
  { id: 'stream', name: 'Stream, −16 to −14 LUFS', range: [-16, -14], lufs: -15 },
  { id: 'speech', name: 'Speech, stereo, −16 LUFS', range: [-17, -15], lufs: -16 },
  { id: 'speech-mono', name: 'Speech, mono, −19 LUFS', range: [-20, -18], lufs: -19 },
  { id: 'broadcast', name: 'Broadcast, −23 LUFS (R 128)', range: [-23.5, -22.5], lufs: -23 },
] as const;
export type TargetId = (typeof TARGETS)[number]['id'];
