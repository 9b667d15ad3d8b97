import type { Rig } from '#core/model/rig/index.ts';
import { type Figure, interval } from '#core/model/units/index.ts';
import { deviceName } from './path.ts';
import { say } from './sayings.ts';

/** How fast a device's clock was measured to run against others, ppm: above zero its recordings come out longer. */
export function clockDrifts(rig: Rig, deviceId: string): Figure[] {
  return rig.measurements.flatMap((m): Figure[] => {
    if (m.kind !== 'drift' || (m.deviceId !== deviceId && m.againstDeviceId !== deviceId)) return [];
    const own = m.deviceId === deviceId;
    const ppm = own ? m.ppm.mean : -m.ppm.mean;
    return [
      {
        label: say.vs({ device: deviceName(rig, own ? m.againstDeviceId : m.deviceId) }),
        value: interval(ppm - 2 * m.ppm.sd, ppm, ppm + 2 * m.ppm.sd),
        unit: 'ppm',
        kind: 'measured',
        source: say.measuredWithTwoRecordings({ label: m.label }),
        spread: { sd: m.ppm.sd, count: m.ppm.count },
        terms: [],
      },
    ];
  });
}
