import { findPanels, type Luma, readAgain } from './panel.ts';
import type { Quad } from './quad.ts';
import type { PanelSeen, SlateSights } from './reading.ts';

/** Looks at one picture after another for slates: finds them, then follows them. */
export interface SlateWatch {
  see(luma: Luma, atMs: number): void;
  sights(): SlateSights;
}

/** Until one is found, one picture in this many is searched; a panel that was read is followed at once. */
const HUNT_EVERY = 12;
/** After this many unreadable pictures in a row, a panel is searched again, then given up. */
const LOST_AFTER = 3;
const GIVEN_UP_AFTER = 30;
/** A gap this long starts another stretch. */
const GAP_MS = 800;

interface Followed {
  quad: Quad;
  missed: number;
}

export function slateWatch(): SlateWatch {
  const panels: PanelSeen[] = [];
  const timesMs: number[] = [];
  let followed: Followed[] = [];
  let sinceHunt = HUNT_EVERY;

  const hunt = (luma: Luma, atMs: number): void => {
    sinceHunt = 0;
    const found = findPanels(luma);
    for (const read of found) panels.push({ ...read, atMs });
    // Those that were not found again are kept in mind for a while.
    if (found.length > 0) followed = found.map(({ quad }) => ({ quad, missed: 0 }));
  };

  return {
    see(luma, atMs) {
      if (atMs - (timesMs.at(-1) ?? Number.NEGATIVE_INFINITY) > GAP_MS) sinceHunt = HUNT_EVERY;
      timesMs.push(atMs);
      sinceHunt++;
      const reads = followed.map(({ quad }) => readAgain(luma, quad));
      const lost = followed.some((f, i) => reads[i] === null && f.missed + 1 >= LOST_AFTER);
      if ((followed.length === 0 || lost) && sinceHunt >= HUNT_EVERY) {
        const before = followed;
        hunt(luma, atMs);
        if (followed !== before) return;
      }
      followed = followed.flatMap((f, i) => {
        const read = reads[i];
        if (read) panels.push({ ...read, atMs });
        const missed = read ? 0 : f.missed + 1;
        return missed > GIVEN_UP_AFTER ? [] : [{ quad: read?.quad ?? f.quad, missed }];
      });
    },
    sights: () => ({ panels, timesMs: Float64Array.from(timesMs) }),
  };
}
