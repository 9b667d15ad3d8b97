import { findTypes } from './lookup.ts';
import { parseRig } from './parse.ts';
import type { PortRef, Rig } from './schema.ts';
import type { DeviceType } from './schema-type.ts';

/** Old ids to new ones that say nothing and stand in the same order. */
const numbered = (ids: Iterable<string>, letter: string): ReadonlyMap<string, string> =>
  new Map([...ids].sort().map((id, i) => [id, `${letter}${String(i).padStart(4, '0')}`]));

interface Names {
  readonly ports: ReadonlyMap<string, string>;
  readonly settings: ReadonlyMap<string, string>;
}

/** A type under ids and names that say nothing; values of switches, channels and connectors are the standard's. */
function renameType(type: DeviceType, id: string): { type: DeviceType; names: Names } {
  const ports = numbered(
    type.ports.map((p) => p.id),
    'p',
  );
  const settings = numbered(
    type.settings.map((s) => s.id),
    's',
  );
  const figures = numbered(Object.keys(type.figures), 'f');
  const sockets = numbered(new Set(type.ports.flatMap((p) => [p.socket ?? [], p.soundDevice ?? []].flat())), 'k');
  const place = (at: string) => {
    const [port, channel] = at.split('.') as [string, string];
    return `${ports.get(port)}.${channel}`;
  };
  const setting = (at: string | undefined) => at && settings.get(at)!;
  return {
    names: { ports, settings },
    type: {
      ...type,
      id,
      name: `Kind ${id}`,
      family: 'shelf',
      summary: '',
      ...(type.power?.supply && { power: { ...type.power, supply: setting(type.power.supply) } }),
      ...(type.exclusive && {
        exclusive: type.exclusive.map((e) => ({
          ...e,
          ports: e.ports.map((p) => ports.get(p)!) as [string, string],
        })),
      }),
      ports: type.ports.map((p) => ({
        ...p,
        id: ports.get(p.id)!,
        name: `End ${ports.get(p.id)}`,
        ...(p.socket && { socket: sockets.get(p.socket)! }),
        ...(p.soundDevice && { soundDevice: sockets.get(p.soundDevice)! }),
        ...(p.gives?.setting && { gives: { ...p.gives, setting: setting(p.gives.setting) } }),
        ...(p.picture && {
          picture: {
            ...p.picture,
            ...(p.picture.sends && {
              sends: {
                mode: setting(p.picture.sends.mode)!,
                ...(p.picture.sends.bits && { bits: setting(p.picture.sends.bits)! }),
              },
            }),
            ...(p.picture.protects && { protects: setting(p.picture.protects)! }),
            ...(p.picture.soundFormat && { soundFormat: setting(p.picture.soundFormat)! }),
            ...(p.picture.overlays && { overlays: setting(p.picture.overlays)! }),
          },
        }),
      })),
      settings: type.settings.map((s) => ({ ...s, id: settings.get(s.id)!, name: `Knob ${settings.get(s.id)}` })),
      figures: Object.fromEntries(
        Object.entries(type.figures).map(([f, spec]) => [
          figures.get(f)!,
          { ...spec, label: `Time ${figures.get(f)}` },
        ]),
      ),
      ...(type.together && {
        together: type.together.map((t) => ({
          ...t,
          figures: t.figures.map((f) => figures.get(f)!) as [string, string],
        })),
      }),
      inside: type.inside.map((w) => ({
        from: place(w.from),
        to: place(w.to),
        stages: w.stages.map((stage) => {
          if (stage.do === 'latency') return { ...stage, figure: figures.get(stage.figure)! };
          return 'setting' in stage ? { ...stage, setting: setting(stage.setting)! } : stage;
        }),
      })),
    },
  };
}

/**
 * The same desk with every type, end, setting and figure under another id and name, and all on one shelf: whatever is
 * computed from it has to come out the same. Measurements are left out; they name figures.
 */
export function renamed(rig: Rig): Rig {
  const types = findTypes(rig);
  const used = [...new Set(rig.devices.map((d) => d.typeId))].sort();
  const made = new Map(used.map((id, i) => [id, renameType(types.get(id)!, `t${String(i).padStart(4, '0')}`)]));
  const namesOf = (deviceId: string): Names => made.get(rig.devices.find((d) => d.id === deviceId)!.typeId)!.names;
  const end = ({ deviceId, portId }: PortRef): PortRef => ({ deviceId, portId: namesOf(deviceId).ports.get(portId)! });
  const cable = (c: Rig['cables'][number]) => ({ ...c, from: end(c.from), to: end(c.to) });
  return parseRig({
    ...rig,
    measurements: [],
    types: [...made.values()].map((m) => m.type),
    devices: rig.devices.map((d) => {
      const { ports, settings } = namesOf(d.id);
      return {
        ...d,
        typeId: made.get(d.typeId)!.type.id,
        settings: Object.fromEntries(Object.entries(d.settings).map(([id, s]) => [settings.get(id)!, s])),
        ...(d.ends && { ends: Object.fromEntries(Object.entries(d.ends).map(([id, e]) => [ports.get(id)!, e])) }),
      };
    }),
    cables: rig.cables.map(cable),
    sources: rig.sources.map((s) => ({ ...s, sound: end(s.sound), ...(s.picture && { picture: end(s.picture) }) })),
    listeners: rig.listeners.map((l) => ({ ...l, sound: end(l.sound), ...(l.picture && { picture: end(l.picture) }) })),
    tasks: rig.tasks.map((t) => {
      if ('cableId' in t) return { ...t, before: t.before && cable(t.before) };
      const settingId = namesOf(t.deviceId).settings.get(t.settingId)!;
      return { ...t, id: `${t.deviceId}.${settingId}`, settingId };
    }),
    moments: rig.moments.map((m) => ({
      ...m,
      settings: m.settings.map((s) => ({ ...s, settingId: namesOf(s.deviceId).settings.get(s.settingId)! })),
    })),
  });
}
