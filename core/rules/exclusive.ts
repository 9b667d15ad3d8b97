import type { DeviceType, PortSpec } from '#core/model/rig/index.ts';
import { portOf } from '#core/model/rig/index.ts';
import { evaluationAt } from '#core/signal/index.ts';
import type { Box, SettingSeen } from './box.ts';
import { type Context, type Rule, rule, setFix } from './finding.ts';
import type { LeadEnd } from './leads.ts';
import { say } from './sayings.ts';

/** Sockets and channels in use: by cables of any kind, and by destinations. */
function usedEnds({ rig }: Context): Set<string> {
  const used = new Set<string>();
  const at = ({ deviceId, portId }: { deviceId: string; portId: string }) => used.add(`${deviceId}/${portId}`);
  for (const cable of rig.cables) {
    at(cable.from);
    at(cable.to);
  }
  for (const listener of rig.listeners) at(listener.sound);
  return used;
}

interface ShutPort {
  readonly box: Box;
  readonly port: PortSpec;
  readonly seen: SettingSeen;
  readonly cableIds: readonly string[];
}

/** Ends of cables of which every way within the device is shut by one switch as it stands. */
function shutPorts({ leads, box, evaluation }: Context): ShutPort[] {
  const { graph } = evaluation;
  const open = openWithin(graph);
  const shutAt = new Map<number, (typeof graph.shut)[number][]>();
  const shutIn = new Set<string>();
  for (const s of graph.shut) {
    shutIn.add(s.deviceId);
    for (const node of [s.from, s.to]) {
      const here = shutAt.get(node);
      if (here) here.push(s);
      else shutAt.set(node, [s]);
    }
  }
  const ends = new Map<string, { end: LeadEnd; cableIds: string[] }>();
  /** Ends that a computer alone plays to. */
  const fed = new Map<string, boolean>();
  for (const { from, to } of leads) fed.set(to.at, (fed.get(to.at) ?? true) && from.type.hosts === true);
  const note = (end: LeadEnd, cableId: string) => {
    if (!shutIn.has(end.device.id)) return;
    const known = ends.get(end.at);
    if (known) known.cableIds.push(cableId);
    else ends.set(end.at, { end, cableIds: [cableId] });
  };
  for (const lead of leads) {
    note(lead.from, lead.cable.id);
    note(lead.to, lead.cable.id);
  }
  return [...ends.values()].flatMap(({ end, cableIds }): ShutPort[] => {
    const nodes = graph.nodesOf({ deviceId: end.device.id, portId: end.port.id });
    const shut = nodes.flatMap((n) => shutAt.get(n) ?? []);
    const settingId = shut[0]?.settingId;
    if (!settingId || shut.some((s) => s.settingId !== settingId)) return [];
    const here = box(end.device.id);
    const seen = here.setting(settingId);
    // A computer that plays nothing there loses nothing.
    const isIdle =
      end.port.direction === 'in' &&
      fed.get(end.at) === true &&
      nodes.every((n) => evaluation.arrivals[n]!.length === 0 && evaluation.pictures[n]!.length === 0);
    if (isIdle) return [];
    if (seen?.spec.kind !== 'switch' || nodes.some((n) => open[n])) return [];
    return [{ box: here, port: end.port, seen, cableIds }];
  });
}

/** Whether something is connected to an input that the switch has not selected. */
function chosenIsUsed(
  used: ReadonlySet<string>,
  deviceId: string,
  type: DeviceType,
  port: PortSpec,
  { spec, value }: SettingSeen,
): boolean {
  return type.inside.some(({ from, to, stages }) => {
    const end = portOf(port.direction === 'in' ? from : to);
    const isChosen = stages.some((s) => s.do === 'door' && s.setting === spec.id && s.openWhen === value);
    return isChosen && end !== port.id && used.has(`${deviceId}/${end}`);
  });
}

/** Nodes that an open way within a device begins or ends at. */
function openWithin({ edges, from, to, nodes }: Context['evaluation']['graph']): Uint8Array {
  const open = new Uint8Array(nodes.length);
  for (let e = 0; e < edges.length; e++)
    if ('deviceId' in edges[e]!.via) {
      open[from[e]!] = 1;
      open[to[e]!] = 1;
    }
  return open;
}

/** Whether moments part some ends: one of them is open in one moment, and shut in another. */
function isInTurn({ rig }: Context, deviceId: string, ports: readonly string[]): boolean {
  if (rig.moments.length === 0) return false;
  const open = [null, ...rig.moments.map((m) => m.id)].map((momentId) => {
    const { graph } = evaluationAt(rig, momentId);
    const within = openWithin(graph);
    return new Set(ports.filter((portId) => graph.nodesOf({ deviceId, portId }).some((n) => within[n])));
  });
  return ports.some((id) => new Set(open.map((now) => now.has(id))).size > 1);
}

export const exclusiveRules: readonly Rule[] = [
  rule('wire', 'exclusive-ends', (context) => {
    const used = usedEnds(context);
    return context.boxes.flatMap(({ device, type, port }) =>
      (type.exclusive ?? []).flatMap(({ ports, severity, says }) => {
        if (isInTurn(context, device.id, ports) || !ports.every((id) => used.has(`${device.id}/${id}`))) return [];
        return [
          {
            at: `${device.id}/${ports.join('+')}`,
            severity,
            where: { deviceIds: [device.id] },
            says: say.bothInUse({
              device: device.name,
              name: port(ports[0])?.name ?? '',
              name2: port(ports[1])?.name ?? '',
              says,
            }),
            why: [{ says, source: say.typical({ type: type.name }) }],
          },
        ];
      }),
    );
  }),
  rule(
    'wire',
    'exclusive-switched-off',
    (context) => {
      const used = usedEnds(context);
      return shutPorts(context).flatMap(({ box: { device, type }, port, seen, cableIds }) => {
        // Muted by a key or pedal is its idle state. If another input was selected for what is connected, that is on purpose.
        if (
          seen.spec.kind !== 'switch' ||
          seen.spec.purpose === 'keying' ||
          chosenIsUsed(used, device.id, type, port, seen)
        )
          return [];
        const at = seen.spec.options.find((o) => o.value === seen.value)?.label;
        return [
          {
            at: `${device.id}/${port.id}`,
            severity: 'fix' as const,
            where: {
              deviceIds: [device.id],
              cableIds,
              setting: { deviceId: device.id, settingId: seen.spec.id },
            },
            says: say.switchBlocks({ device: device.name, port: port.name, spec: seen.spec.name, at: at ?? '' }),
            asks:
              seen.known === 'assumed'
                ? say.isSetTo({ device: device.name, spec: seen.spec.name, at: at ?? '' })
                : null,
            why: [{ says: say.selectsWhatPasses({ spec: seen.spec.name }), source: say.typical({ type: type.name }) }],
          },
        ];
      });
    },
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
