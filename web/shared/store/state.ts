import type { DayPage } from '#api/index.ts';
import type { DayEvent } from '#core/live/run/index.ts';
import type { History, Rig, Step } from '#core/model/rig/index.ts';

/** State of the open rig relative to the server. */
export type SaveState = 'saved' | 'unsaved' | 'offline' | 'waiting' | 'conflict' | 'refused';

/** The rig that is open: a person's decisions only; everything else is selected from them. */
export interface Desk {
  readonly rigId: string | null;
  readonly history: History | null;
  /** The server's revision that the rig in hand builds on. */
  readonly revision: number;
  readonly save: SaveState;
  /** The steps that were made when the server last kept it. */
  readonly savedPast: readonly Step[];
  /** Why the server does not keep it just now, while that is tried again. */
  readonly waits: string | null;
  /** Another window's newer rig, while one has to choose. */
  readonly newer: { readonly revision: number; readonly rig: Rig } | null;
  /** The moment of the session that is looked at; null: the plain rig. */
  readonly momentId: string | null;
  /** Why the last edit or save was refused, for the notice line. */
  readonly refusal: string | null;
}

/** State of the session log relative to the server. */
export type DayLink = 'opening' | 'sent' | 'waiting' | 'lost' | 'refused';

/** What happened on the days of the open rig: what was heard of the server, and what it has not heard yet. */
export interface Day {
  readonly rigId: string | null;
  readonly events: readonly DayEvent[];
  readonly waiting: readonly DayEvent[];
  readonly seq: number;
  /** Entries of the journal that can't be read, by their place in it. */
  readonly unreadable: DayPage['unreadable'];
  readonly link: DayLink;
  /** Of the rig, as the server has it; null until it was heard. */
  readonly revision: number | null;
}
