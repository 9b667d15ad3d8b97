import type { ToleranceId } from '#core/rig/index.ts';

/** How far sound may stand from its picture before somebody minds. Offset = sound minus picture: positive is late. */
export interface Tolerance {
  readonly id: ToleranceId;
  readonly name: string;
  readonly earlyMs: number;
  readonly lateMs: number;
  readonly source: string;
}

export const TOLERANCES: readonly Tolerance[] = [
  { id: 'ebu-r37', name: 'recording', earlyMs: -40, lateMs: 60, source: 'EBU R 37, at the end of the chain' },
  { id: 'itu-bt1359', name: 'noticed', earlyMs: -45, lateMs: 125, source: 'ITU-R BT.1359-1, when people notice' },
  { id: 'atsc-is191', name: 'broadcast', earlyMs: -15, lateMs: 45, source: 'ATSC IS-191' },
  {
    id: 'player',
    name: 'player',
    earlyMs: -40,
    lateMs: 40,
    source: 'typical for a player who reacts to what they hear',
  },
];

export const toleranceOf = (id: ToleranceId): Tolerance => TOLERANCES.find((t) => t.id === id)!;
