import type { Act } from './step.ts';

/** Settings and cables that a step changes in its moment, and the device that it puts in. */
export function touchedBy(act: Act): string[] {
  if (act.do !== 'change') return [];
  const brought = act.first?.kind === 'add-device' ? [act.first.device.id] : [];
  return [
    ...brought,
    ...act.changes.map((c) => ('settingId' in c ? `${act.momentId ?? ''}@${c.deviceId}.${c.settingId}` : c.cableId)),
  ];
}
