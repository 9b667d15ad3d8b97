import type { LevelCause } from '#core/desk-tests/reconcile/index.ts';
import { SCALE_UNITS } from '#core/signal/index.ts';
import { parts as say } from '#words/index.ts';
import { formatNumber } from './format.ts';

/** What a cause says, in words. */
export function sayCause(cause: LevelCause, source: string): string {
  if (cause.kind === 'source')
    return say.isLouderOrQuieter({ source, levelDb: formatNumber(cause.levelDb, 1), scale: SCALE_UNITS[cause.scale] });
  const { where, drawn, stands, assumed } = cause;
  return say.isAtDbNot({
    where,
    stands: formatNumber(stands, 1),
    drawn: formatNumber(drawn, 1),
    seen: assumed ? say.notConfirmed() : '',
  });
}
