import { deviceName, loopLimit } from '#core/signal/index.ts';
import { type Rule, rule, type Severity } from './finding.ts';

export const loopRules: readonly Rule[] = [
  rule('route', 'loop-howls', ({ rig, evaluation }) =>
    evaluation.loops.flatMap((loop) => {
      const limit = loopLimit(loop);
      if (loop.gainDb < limit.ringsDb) return [];
      const howls = loop.gainDb >= limit.howlsDb;
      const names = loop.deviceIds.map((id) => deviceName(rig, id));
      const severity: Severity = howls ? 'stop' : 'watch';
      return [
        {
          at: [...loop.deviceIds].sort().join('+'),
          severity,
          where: { deviceIds: loop.deviceIds },
          says: `What leaves ${names[0]} comes back to it by ${names.slice(1).join(', ') || 'itself'}, ${Math.abs(loop.gainDb).toFixed(0)} dB ${loop.gainDb < 0 ? 'quieter' : 'louder'} each time: it ${howls ? 'howls' : 'rings'}. Turn a level on that way down, or take it out. Turn loudspeakers down before you try.`,
          why: [
            {
              says: `${limit.source}: rings from ${limit.ringsDb} dB, howls from ${limit.howlsDb} dB`,
              source: 'loop gain against the Barkhausen limit',
            },
          ],
        },
      ];
    }),
  ),
];
