import type { Said } from '#core/base/said/index.ts';
import { deviceName, type Loop, loopLimit } from '#core/signal/index.ts';
import { type Draft, type Rule, rule, type Severity } from './finding.ts';
import { say } from './sayings.ts';

type Says = 'howls' | 'rings' | null;
const saysOf = (loop: { readonly gainDb: number; readonly throughAir: boolean }): Says => {
  const { howlsDb, ringsDb } = loopLimit(loop);
  return loop.gainDb >= howlsDb ? 'howls' : loop.gainDb >= ringsDb ? 'rings' : null;
};
const WORSE: readonly Says[] = [null, 'rings', 'howls'];
const worse = (a: Says, b: Says): Says => (WORSE.indexOf(a) > WORSE.indexOf(b) ? a : b);

/** Gain that loops together add over one loop alone from which on they are reported as a group, dB. */
const MORE_DB = 1;
/** A loop this far below the loudest of its group is not part of why the group howls, dB. */
const PART_DB = 10;

/** Whether loops howl or ring: each by itself, and those of a component together. */
function judged(loops: readonly Loop[]): { loop: Loop; says: Exclude<Says, null> }[] {
  return loops.flatMap((loop) => {
    const loudest = loops.find((l) => l.together === loop.together)!;
    const isPart = loop.gainDb >= loudest.gainDb - PART_DB;
    const says = worse(saysOf(loop), isPart ? saysOf(loop.together) : null);
    return says === null ? [] : [{ loop, says }];
  });
}

const sayChange = (db: number): Said =>
  say.changeBy({ n0: Math.abs(db).toFixed(0), louder: db < 0 ? say.quieter() : say.louder() });

export const loopRules: readonly Rule[] = [
  rule('route', 'loop-howls', ({ rig, evaluation }) =>
    judged(evaluation.loops).map(({ loop, says }): Draft => {
      const { together, deviceIds } = loop;
      const names = deviceIds.map((id) => deviceName(rig, id));
      const severity: Severity = says === 'howls' ? 'stop' : 'watch';
      const limit = loopLimit(loop);
      const more = together.gainDb > loop.gainDb + MORE_DB;
      return {
        at: [...deviceIds].sort().join('+'),
        severity,
        where: { deviceIds },
        says: say.feedbackLoop({
          n0: names[0]!,
          itself: names.slice(1).join(', ') || 'itself',
          gainDb: sayChange(loop.gainDb),
          round: more ? say.withOtherLoops({ gainDb: sayChange(together.gainDb) }) : '',
          says: says === 'howls' ? say.howls() : say.rings(),
        }),
        why: [
          {
            says: say.loopLimits({ source: limit.source, ringsDb: limit.ringsDb, howlsDb: limit.howlsDb }),
            source: say.loopGainAgainstBarkhausen(),
          },
          {
            says: say.loopGain({
              n1: together.gainDb.toFixed(1),
              channels: together.loops > 1 ? say.loopsCount({ loops: together.loops }) : say.channels(),
              n12: together.powerDb.toFixed(1),
            }),
            source: say.largestEigenvalueWhatComes(),
          },
        ],
      };
    }),
  ),
];
