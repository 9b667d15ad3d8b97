import { endName, findTypes, type Rig } from '#core/model/rig/index.ts';

export const portName = (rig: Rig, deviceId: string, portId: string): string =>
  endName(rig, findTypes(rig), { deviceId, portId });
