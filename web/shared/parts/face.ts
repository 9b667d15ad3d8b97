import { type ConnectorKind, connectorOf } from '#core/model/plug/index.ts';
import type { DeviceType, SettingSpec } from '#core/model/rig/index.ts';

/** A socket or a control on the drawing of a device. */
export interface FaceMark {
  readonly id: string;
  readonly name: string;
  readonly shape: ConnectorKind | 'end' | 'knob' | 'switch' | 'button';
  readonly xPx: number;
  readonly yPx: number;
  /** It is the one that is meant. */
  readonly meant: boolean;
}

export interface Face {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly marks: readonly FaceMark[];
  /** Where sockets end and controls begin; null where there is only one kind. */
  readonly rulePx: number | null;
}

const PITCH = 26;
const PAD = 8;
const PER_ROW = 9;

const CONTROLS: Record<SettingSpec['kind'], FaceMark['shape']> = {
  gain: 'knob',
  delay: 'knob',
  value: 'knob',
  switch: 'switch',
  mute: 'button',
};

/** Sockets of a device, each once, then what can be set on it: drawn from its data, not after any one make. */
export function layoutFace(type: DeviceType, meant: { portId: string | null; settingId: string | null }): Face {
  const sockets = new Map<string, Omit<FaceMark, 'xPx' | 'yPx'>>();
  for (const port of type.ports) {
    if (port.direction === 'inside') continue;
    const id = port.socket ?? port.id;
    const isMeant = meant.settingId === null && port.id === meant.portId;
    const known = sockets.get(id);
    const family = connectorOf(port.connector)?.kind;
    sockets.set(id, {
      id,
      name: known ? `${known.name}, ${port.name}` : port.name,
      shape: family ?? 'end',
      meant: (known?.meant ?? false) || isMeant,
    });
  }
  const controls = type.settings.map((spec) => ({
    id: spec.id,
    name: spec.name,
    shape: CONTROLS[spec.kind],
    meant: spec.id === meant.settingId,
  }));
  const at = (i: number, fromY: number) => ({
    xPx: PAD + (i % PER_ROW) * PITCH + PITCH / 2,
    yPx: fromY + Math.floor(i / PER_ROW) * PITCH + PITCH / 2,
  });
  const rows = (n: number) => Math.ceil(n / PER_ROW) * PITCH;
  const first = [...sockets.values()].map((s, i) => ({ ...s, ...at(i, PAD) }));
  const below = PAD + rows(first.length);
  const gap = first.length > 0 && controls.length > 0 ? PAD : 0;
  const second = controls.map((c, i) => ({ ...c, ...at(i, below + gap) }));
  return {
    widthPx: 2 * PAD + PER_ROW * PITCH,
    heightPx: below + gap + rows(controls.length) + PAD,
    marks: [...first, ...second],
    rulePx: gap > 0 ? below + gap / 2 : null,
  };
}
