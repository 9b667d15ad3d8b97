/** What makes a short sharp sound; each sounds in a way of its own. */
export const CLAP_KINDS = ['hands', 'wood', 'snap', 'click'] as const;
export type ClapKind = (typeof CLAP_KINDS)[number];

/** The instant of a clap or a slate's clack. */
export interface Clap {
  readonly atMs: number;
  /** Prominence over the loudest hundredth of the surroundings, above the body of the voice, dB. */
  readonly strength: number;
  /** Probability of a clap, 0 to 1, fitted to takes with and without claps. */
  readonly confidence: number;
  /** What it sounds most like. */
  readonly kind: ClapKind;
}
