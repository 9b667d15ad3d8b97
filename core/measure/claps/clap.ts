/** What makes a short sharp sound; each sounds in a way of its own. */
export const CLAP_KINDS = ['hands', 'wood', 'snap', 'click'] as const;
export type ClapKind = (typeof CLAP_KINDS)[number];

/** The instant of a clap or a slate's clack. */
export interface Clap {
  readonly atMs: number;
  /** How far it stands out over the loudest hundredth of what sounds around it, above the voice's body, dB. */
  readonly strength: number;
  /** How likely it is a clap, 0 to 1, by how takes with and without them were told apart. */
  readonly confidence: number;
  /** What it sounds most like. */
  readonly kind: ClapKind;
}
