import { quoted } from '#core/base/said/index.ts';
import { settingOf, sourceIn } from '#core/model/rig/index.ts';
import { CREST_DB, type Ladder, ladderOf, type Pair } from '#core/signal/index.ts';
import { type Context, type Rule, rule, setFix } from './finding.ts';
import { say } from './sayings.ts';

/** Least distance of typical peaks from clipping that is still fine, dB. */
const WANTED_ROOM_DB = 6;

const wanted = ({ want, ways }: Pair): boolean => ways.length > 0 && want !== 'must-not';

const ladderAt = ({ rig, evaluation }: Context, pair: Pair): Ladder =>
  ladderOf(rig, evaluation.graph, evaluation.noiseDb, pair.ways[0]!.arrival);

/** The first ceiling on a way that its usual peaks go over. */
function clippedAt(context: Context, pair: Pair) {
  // The table knows the least distance on the way: most ways need no closer look.
  const room = pair.ways[0]!.headroomDb;
  if (room === null || room >= CREST_DB.nominal) return null;
  const { rungs } = ladderAt(context, pair);
  const index = rungs.findIndex((r) => r.headroomDb !== null && r.headroomDb < 0);
  return index < 0 ? null : { rung: rungs[index]!, before: rungs.slice(0, index + 1) };
}

export const gainRules: readonly Rule[] = [
  rule(
    'level',
    'gain-clips',
    (context) => {
      const seen = new Set<string>();
      return context.evaluation.pairs.filter(wanted).flatMap((pair) => {
        const clipped = clippedAt(context, pair);
        if (!clipped) return [];
        const { rung } = clipped;
        const at = `${pair.sourceId}@${rung.deviceId}.${rung.stage}`;
        // One stage that clips one source is one finding, whoever receives it.
        if (seen.has(at)) return [];
        seen.add(at);
        const source = sourceIn(context.rig, pair.sourceId);
        return [
          {
            at,
            severity: 'fix' as const,
            where: {
              deviceIds: rung.deviceId ? [rung.deviceId] : [],
              sourceId: pair.sourceId,
              listenerId: pair.listenerId,
            },
            says: say.clipsAt({
              source: source.name,
              box: rung.deviceId ? quoted(rung.box as string) : rung.box,
              stage: rung.stage,
              n0: (-rung.headroomDb!).toFixed(0),
            }),
            why: [
              {
                says: say.averageAndPeaks({
                  n0: rung.levelDb.nominal.toFixed(0),
                  nominal: CREST_DB.nominal,
                  n02: rung.ceilingDb!.toFixed(0),
                }),
                source: say.gainStagingThisPath(),
              },
            ],
          },
        ];
      });
    },
    (context, finding) => {
      const pair = context.evaluation.pairs.find(
        (p) => p.sourceId === finding.where.sourceId && p.listenerId === finding.where.listenerId,
      );
      const clipped = pair && clippedAt(context, pair);
      if (!clipped) return [];
      const tooMuch = WANTED_ROOM_DB - clipped.rung.headroomDb!;
      return clipped.before.flatMap(({ setting }) => {
        if (!setting) return [];
        const box = context.box(setting.deviceId);
        const now = settingOf(box.device, setting.spec).value as number;
        const steps = Math.ceil(tooMuch / setting.spec.step);
        const value = Number((now - steps * setting.spec.step).toFixed(6));
        return value >= setting.spec.min ? setFix(box, setting.spec.id, value) : [];
      });
    },
  ),
];
