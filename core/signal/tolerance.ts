import type { Text } from '#core/base/said/index.ts';
import type { ToleranceId } from '#core/model/rig/index.ts';
import { say } from './sayings.ts';

/** How far sound may stand from its picture before someone minds. Offset = sound minus picture: positive is late. */
export interface Tolerance {
  readonly id: ToleranceId;
  readonly name: Text;
  readonly earlyMs: number;
  readonly lateMs: number;
  readonly source: Text;
}

export const TOLERANCES: readonly Tolerance[] = [
  { id: 'ebu-r37', name: say.recording(), earlyMs: -40, lateMs: 60, source: say.ebuRAtEnd() },
  { id: 'itu-bt1359', name: say.noticed(), earlyMs: -45, lateMs: 125, source: say.ituRBtWhen() },
  { id: 'atsc-is191', name: say.broadcast(), earlyMs: -15, lateMs: 45, source: say.atscIs() },
  {
    id: 'player',
    name: say.player(),
    earlyMs: -40,
    lateMs: 40,
    source: say.typicalForPlayerWho(),
  },
];

export const toleranceOf = (id: ToleranceId): Tolerance => TOLERANCES.find((t) => t.id === id)!;
