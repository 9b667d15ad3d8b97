import type { ReactNode } from 'react';
import type { Said } from '#core/base/said/index.ts';
import { messageOfSaid } from '#words/index.ts';
import { rich } from './rich.tsx';

/** What core says, with its strong parts. */
export function richSaid(said: Said): ReactNode {
  const { message, params } = messageOfSaid(said);
  return rich(message, params);
}
