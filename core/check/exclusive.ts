import { type Context, type Rule, rule, setFix } from './finding.ts';
import type { LeadSeen } from './leads.ts';

/** Cables at a port, whatever they are made of. */
const usedAt = ({ rig }: Context, deviceId: string, portId: string): string[] => {
  const here = (ref: { deviceId: string; portId: string }) => ref.deviceId === deviceId && ref.portId === portId;
  return [
    ...rig.cables.filter((c) => here(c.from) || here(c.to)).map((c) => c.id),
    ...rig.listeners.filter((l) => here(l.sound)).map((l) => l.id),
  ];
};

interface ShutPort {
  readonly deviceId: string;
  readonly portId: string;
  readonly settingId: string;
  readonly cableIds: readonly string[];
}

/** Ends of leads of which every way within the box is shut by one switch as it stands. */
function shutPorts({ leads, box, evaluation }: Context): ShutPort[] {
  const { graph } = evaluation;
  const fed = fedWithin(graph);
  const shutAt = new Map<number, (typeof graph.shut)[number][]>();
  for (const s of graph.shut) for (const node of [s.from, s.to]) shutAt.set(node, [...(shutAt.get(node) ?? []), s]);
  const ends = new Map<string, { end: LeadSeen['from']; cableIds: string[] }>();
  for (const lead of leads) {
    for (const end of [lead.from, lead.to]) {
      const key = `${end.device.id}/${end.port.id}`;
      const known = ends.get(key);
      if (known) known.cableIds.push(lead.cable.id);
      else ends.set(key, { end, cableIds: [lead.cable.id] });
    }
  }
  return [...ends.values()].flatMap(({ end, cableIds }): ShutPort[] => {
    const ref = { deviceId: end.device.id, portId: end.port.id };
    const nodes = graph.nodesOf(ref);
    const shut = nodes.flatMap((n) => shutAt.get(n) ?? []);
    const settingId = shut[0]?.settingId;
    if (!settingId || shut.some((s) => s.settingId !== settingId)) return [];
    if (box(ref.deviceId).setting(settingId)?.spec.kind !== 'switch') return [];
    const open = nodes.some((n) => {
      if (end.port.direction === 'out' && fed[n]) return true;
      for (let e = graph.firstEdge[n]!; e < graph.firstEdge[n + 1]!; e++)
        if ('deviceId' in graph.edges[e]!.via) return true;
      return false;
    });
    return open ? [] : [{ ...ref, settingId, cableIds }];
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
      shutPorts(context).flatMap(({ deviceId, portId, settingId, cableIds }) => {
        const box = context.box(deviceId);
        const seen = box.setting(settingId);
        // Keyed by hand or pedal: shut is how it waits.
        if (box.type.family === 'two-way' || seen?.spec.kind !== 'switch') return [];
        const at = seen.spec.options.find((o) => o.value === seen.value)?.label;
        return [
          {
            at: `${deviceId}/${portId}`,
            severity: 'fix' as const,
            where: { deviceIds: [deviceId], cableIds, setting: { deviceId, settingId } },
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
