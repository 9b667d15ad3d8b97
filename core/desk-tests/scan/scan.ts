import { z } from 'zod';

/** Upper bounds of what is kept: a computer has a few dozen devices at most. */
const MAX_DEVICES = 64;
const MAX_LINKS = 512;
const MAX_NAME = 200;
const name = z.string().max(MAX_NAME);
const db = z.number().min(-200).max(60);

/** How the two sides of an output arrive at those of an input. */
const SIDES = ['straight', 'crossed', 'both-in-each', 'left-only', 'right-only', 'mono'] as const;
export type Sides = (typeof SIDES)[number];

const ScanOutput = z.object({
  id: name,
  name,
  /** Both directions of one device share it, where the browser says so. */
  groupId: name.optional(),
  sampleRateHz: z.number().positive(),
  /** Peak of the loudest sweep that it played, dBFS. */
  playedDbfs: db,
});
const ScanInput = z.object({
  id: name,
  name,
  groupId: name.optional(),
  sampleRateHz: z.number().positive(),
  channels: z.int().min(1).max(2),
  /** Paths quieter than this could not be seen, dB. */
  seesFromDb: db,
  /** Not one sample but zeros: nothing arrived, or it is muted. */
  silent: z.boolean(),
  /** What the browser says it does to the sound, though asked not to. */
  processing: z.array(z.enum(['echo-cancel', 'noise-suppression', 'gain-control'])),
});
const ScanLink = z.object({
  outputId: name,
  inputId: name,
  /** Of the louder side, 315 Hz to 3.15 kHz, dB. */
  levelDb: db,
  /** From when the browser says a sweep left to when it says it arrived, ms; their own delays included. */
  delayMs: z.number(),
  /** Half the spread of the rounds, ms. */
  spreadMs: z.number().min(0),
  polarity: z.union([z.literal(1), z.literal(-1)]).nullable(),
  sides: z.enum(SIDES),
  /** Clock of the input against the output's, parts per million; null where rounds disagree. */
  ppm: z.number().nullable(),
  lowHz: z.number(),
  highHz: z.number(),
  again: z.array(z.object({ afterMs: z.number(), underDb: z.number() })).max(8),
  /** Louder tunes arrived at another level: something acts on it, dB between the rounds. */
  levelSpreadDb: z.number().min(0),
});

/** What a computer's outputs and inputs have to do with each other, as it was heard. */
export const Scan = z.object({
  at: z.iso.datetime(),
  outputs: z.array(ScanOutput).max(MAX_DEVICES),
  inputs: z.array(ScanInput).max(MAX_DEVICES),
  links: z.array(ScanLink).max(MAX_LINKS),
});
export type Scan = z.infer<typeof Scan>;
/** A scan as it is read; what is kept of one can be read so too. */
export interface ScanRead {
  readonly at: string;
  readonly outputs: readonly ScanOutput[];
  readonly inputs: readonly ScanInput[];
  readonly links: readonly ScanLink[];
}
/** A link with how it arrived: the highest in each ms of its slot, dB under its peak. Not kept. */
export interface ScanLinkSeen extends ScanLink {
  readonly responseDb: readonly number[];
}
export type ScanOutput = z.infer<typeof ScanOutput>;
export type ScanInput = z.infer<typeof ScanInput>;
export type ScanLink = z.infer<typeof ScanLink>;
