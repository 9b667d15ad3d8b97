import { findDevice, findTypes, type Rig } from '#core/rig/index.ts';

export function portName(rig: Rig, deviceId: string, portId: string): string {
  const type = findTypes(rig).get(findDevice(rig, deviceId)?.typeId ?? '');
  return type?.ports.find((p) => p.id === portId)?.name ?? portId;
}
