import type { LevelCause } from '#core/reconcile/index.ts';
import { SCALE_UNITS } from '#core/signal/index.ts';
import { formatNumber } from './format.ts';

/** What a cause says, in words. */
export function sayCause(cause: LevelCause, source: string): string {
  if (cause.kind === 'source')
    return `${source} is at ${formatNumber(cause.levelDb, 1)} ${SCALE_UNITS[cause.scale]} where it begins.`;
  const { where, drawn, stands, assumed } = cause;
  return `${where} stands at ${formatNumber(stands, 1)} dB, not at ${formatNumber(drawn, 1)}${assumed ? ', which nobody has seen' : ''}.`;
}
