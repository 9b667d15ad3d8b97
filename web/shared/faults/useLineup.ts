import type { Lineup } from '#core/live/troubleshoot/index.ts';
import type { Rig } from '#core/model/rig/index.ts';
import { useJob } from '#web/shared/jobs/index.ts';
import { lineUpFaults } from '#web/shared/workers/index.ts';
import { troubleshoot as say } from '#words/index.ts';

/** A rig's faults as they were run once, for as long as it is the same rig. */
const known = new WeakMap<Rig, Lineup>();

/** The faults of a rig, where they were run already. */
export const lineupOf = (rig: Rig): Lineup | undefined => known.get(rig);

/** Every fault of the rig, run in the model beside the page; again when the rig changes. */
export const useLineup = (rig: Rig) => useJob(rig, known, say.simulatingEveryFaultThis(), lineUpFaults);
