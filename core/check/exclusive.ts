import { type Context, type Rule, rule, setFix } from './finding.ts';

/** Cables at a port, whatever they are made of. */
const usedAt = ({ rig }: Context, deviceId: string, portId: string): string[] => {
  const here = (ref: { deviceId: string; portId: string }) => ref.deviceId === deviceId && ref.portId === portId;
  return [
    ...rig.cables.filter((c) => here(c.from) || here(c.to)).map((c) => c.id),
    ...rig.listeners.filter((l) => here(l.sound)).map((l) => l.id),
  ];
};

/** Ports of which every way is shut by one switch as it stands. */
function shutPorts({ rig, types, evaluation }: Context): { deviceId: string; portId: string; settingId: string }[] {
  const { graph } = evaluation;
  const fed = fedWithin(graph);
  return rig.devices.flatMap((device) => {
    const type = types.get(device.typeId)!;
    const doors = type.settings.filter((s) => s.kind === 'switch');
    if (doors.length === 0) return [];
    return type.ports
      .filter((p) => p.direction !== 'inside')
      .flatMap((port) => {
        const nodes = graph.nodesOf({ deviceId: device.id, portId: port.id });
        const isHere = (n: number) => nodes.includes(n);
        const shut = graph.shut.filter((s) => s.deviceId === device.id && (isHere(s.from) || isHere(s.to)));
        const settingId = shut[0]?.settingId;
        if (!settingId || !doors.some((d) => d.id === settingId) || shut.some((s) => s.settingId !== settingId))
          return [];
        const open = nodes.some((n) => {
          for (let e = graph.firstEdge[n]!; e < graph.firstEdge[n + 1]!; e++)
            if ('deviceId' in graph.edges[e]!.via) return true;
          return false;
        });
        const isFed = port.direction === 'out' && nodes.some((n) => fed[n]);
        return open || isFed ? [] : [{ deviceId: device.id, portId: port.id, settingId }];
      });
  });
}

/** Nodes that an open way within a device leads to. */
function fedWithin({ edges, to, nodes }: Context['evaluation']['graph']): Uint8Array {
  const fed = new Uint8Array(nodes.length);
  edges.forEach((edge, e) => {
    if ('deviceId' in edge.via) fed[to[e]!] = 1;
  });
  return fed;
}

export const exclusiveRules: readonly Rule[] = [
  rule('wire', 'exclusive-ends', (context) =>
    context.boxes.flatMap(({ device, type, port }) =>
      (type.exclusive ?? []).flatMap(({ ports, severity, says }) => {
        const users = ports.map((id) => usedAt(context, device.id, id));
        if (users.some((u) => u.length === 0)) return [];
        return [
          {
            at: `${device.id}/${ports.join('+')}`,
            severity,
            where: { deviceIds: [device.id] },
            says: `${device.name}: ${port(ports[0])?.name} and ${port(ports[1])?.name} are both in use. ${says}`,
            why: [{ says, source: `typical of ${type.name}` }],
          },
        ];
      }),
    ),
  ),
  rule(
    'wire',
    'exclusive-switched-off',
    (context) =>
      shutPorts(context).flatMap(({ deviceId, portId, settingId }) => {
        const box = context.box(deviceId);
        // Keyed by hand or pedal: shut is how it waits.
        if (box.type.family === 'two-way') return [];
        const leads = context.rig.cables.filter(
          (c) =>
            c.medium === 'lead' &&
            ((c.from.deviceId === deviceId && c.from.portId === portId) ||
              (c.to.deviceId === deviceId && c.to.portId === portId)),
        );
        const seen = box.setting(settingId);
        if (leads.length === 0 || !seen || seen.spec.kind !== 'switch') return [];
        const at = seen.spec.options.find((o) => o.value === seen.value)?.label;
        return [
          {
            at: `${deviceId}/${portId}`,
            severity: 'fix' as const,
            where: { deviceIds: [deviceId], cableIds: leads.map((c) => c.id), setting: { deviceId, settingId } },
            says: `A lead stands in ${box.device.name}, ${box.port(portId)?.name}, and ${seen.spec.name} is at ‘${at}’: nothing passes there.`,
            asks: seen.known === 'assumed' ? `${box.device.name}, ${seen.spec.name}: is it at ‘${at}’?` : null,
            why: [{ says: `${seen.spec.name} chooses what passes`, source: `typical of ${box.type.name}` }],
          },
        ];
      }),
    (context, finding) => {
      const { setting } = finding.where;
      if (!setting) return [];
      const box = context.box(setting.deviceId);
      const spec = box.setting(setting.settingId)?.spec;
      if (spec?.kind !== 'switch') return [];
      const now = box.setting(setting.settingId)?.value;
      return spec.options
        .filter((o) => o.value !== now)
        .slice(0, 3)
        .flatMap((o) => setFix(box, spec.id, o.value));
    },
  ),
];
