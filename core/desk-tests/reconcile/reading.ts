/** A reading of a take, and what it speaks of. */
export interface TakeReading {
  readonly id: string;
  readonly label: string;
  readonly takeId?: string;
  /** ISO 8601, the caller's clock. */
  readonly takenAt: string;
  readonly sourceId: string;
  readonly listenerId: string;
  /** How many independent readings it rests on. */
  readonly count: number;
}
