import { say } from '#core/audio/measure/sayings.ts';
import type { Text } from '#core/base/said/index.ts';

/** What can be wrong with a take, by itself. */
export const FAULT_IDS = [
  'hum-50',
  'hum-60',
  'hiss',
  'clipping',
  'one-sided',
  'polarity-inverted',
  'echo',
  'dropouts',
  'dc-offset',
  'silent',
  'too-quiet',
  'too-hot',
  'dual-mono',
] as const;
export type FaultId = (typeof FAULT_IDS)[number];

/** Something that is wrong, with what shows it and where in the take to look. */
export interface Fault {
  readonly id: FaultId;
  readonly severity: 'fix' | 'watch';
  /** One sentence with the figures. */
  readonly evidence: Text;
  /** Instants in seconds at which it can be seen, the first few; empty where it is everywhere. */
  readonly atS: readonly number[];
  /** The channel that has it, from 0; null for all of the take. */
  readonly channel: number | null;
  /** Of an echo: how much later it comes, ms. */
  readonly delayMs?: number;
}

/** How the sides of a take are called in a sentence. */
export const sideName = (channel: number, channels: number): Text =>
  channels === 2
    ? [say.left(), say.right()][channel]!
    : channels === 1
      ? say.wholeTake()
      : say.channel({ n: channel + 1 });

/** '12.34 s' */
export const sayAt = (seconds: number): Text =>
  seconds >= 60
    ? say.min({ minutes: Math.floor(seconds / 60), seconds: (seconds % 60).toFixed(1).padStart(4, '0') })
    : `${seconds.toFixed(2)} s`;
