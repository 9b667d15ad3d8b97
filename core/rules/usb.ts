import { listOf } from '#core/base/said/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
import { endsBehind, isHub, type PortSpec, usbMeets, usbRoleOf } from '#core/model/rig/index.ts';
import { type Context, type Rule, rule } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { type LeadEnd, onLead } from './leads.ts';
import { say } from './sayings.ts';

const isUsb = ({ connector }: PortSpec): boolean => connectorOf(connector)?.kind === 'usb';

const ORDER = ['usb-2', 'usb-5', 'usb-10'];

/** Whether a computer hands on what a socket brings: to a software end, and whether anything takes it there. */
function forwardsInput({ evaluation, box }: Context, { device, port }: LeadEnd, taken: ReadonlySet<string>) {
  const { graph } = evaluation;
  let hands = false;
  for (const node of graph.nodesOf({ deviceId: device.id, portId: port.id })) {
    for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) {
      const to = graph.nodes[graph.to[e]!]!;
      if (to.deviceId !== device.id || box(device.id).port(to.portId)?.connector !== 'software') continue;
      if (taken.has(`${device.id}/${to.portId}`)) return 'taken';
      hands = true;
    }
  }
  return hands ? 'not-taken' : say.nothingWord();
}

export const usbRules: readonly Rule[] = [
  rule('wire', 'usb-picture-in-two-programs', ({ rig, evaluation, box }) => {
    const taken = new Map<string, { cableId: string; program: string }[]>();
    for (const cable of rig.cables) {
      const { type } = box(cable.from.deviceId);
      if (cable.medium !== 'software' || !type.hosts) continue;
      if (!endsBehind(type, cable.from.portId).some(isUsb)) continue;
      const { graph } = evaluation;
      const carries = graph.nodesOf(cable.from).some((node) => {
        if (graph.nodes[node]!.carries !== 'picture') return false;
        for (let e = graph.firstEdge[node]!; e < graph.firstEdge[node + 1]!; e++) {
          const { via } = graph.edges[e]!;
          if ('cableId' in via && via.cableId === cable.id) return true;
        }
        return false;
      });
      if (!carries) continue;
      const key = `${cable.from.deviceId}/${cable.from.portId}`;
      taken.set(key, [...(taken.get(key) ?? []), { cableId: cable.id, program: cable.to.deviceId }]);
    }
    return [...taken].flatMap(([key, users]) => {
      const programs = [...new Set(users.map((u) => u.program))];
      if (programs.length < 2) return [];
      const [deviceId, portId] = key.split('/') as [string, string];
      return [
        {
          at: key,
          severity: 'fix' as const,
          where: { deviceIds: [deviceId, ...programs], cableIds: users.map((u) => u.cableId) },
          says: say.captureTaken({
            and: listOf(
              'and',
              programs.map((id) => box(id).device.name),
            ),
            device: box(deviceId).device.name,
            name: box(deviceId).port(portId)?.name ?? '',
          }),
          why: [{ says: say.captureCardCanBe(), source: say.usbVideoAsOperating() }],
        },
      ];
    });
  }),
  leadRule('usb-two-alike', ({ from, to }) => {
    const [a, b] = [usbRoleOf(from.type, from.port), usbRoleOf(to.type, to.port)];
    if (usbMeets(a, b)) return null;
    const hosts = a === 'host';
    const charges = [from, to].find((end) => usbRoleOf(end.type, end.port) === 'power');
    if (charges)
      return {
        severity: 'stop',
        says: say.chargeOnly({ device: charges.device.name, port: charges.port.name }),
        why: [{ says: say.chargingSocketsHaveNo(), source: say.usbAsSpecified() }],
      };
    return {
      severity: 'stop',
      says: hosts
        ? say.usbToUsb({ device: from.device.name, device2: to.device.name })
        : say.usbNoComputer({ device: from.device.name, device2: to.device.name, port: to.port.name }),
      why: [{ says: say.usbTalksBetweenOne(), source: say.usbAsSpecified() }],
    };
  }),
  leadRule('usb-slow-socket', (lead) => {
    const [has, gets] = [lead.from.port.picture, lead.to.port.picture];
    if (!has?.link?.startsWith('usb') || !gets?.link?.startsWith('usb') || has.compressed) return null;
    if (ORDER.indexOf(has.link) <= ORDER.indexOf(gets.link)) return null;
    return {
      severity: 'watch',
      says: say.usbSlower({ device: lead.from.device.name, device2: lead.to.device.name, port: lead.to.port.name }),
      why: [{ says: say.gbitSNeeded({ n4: has.link.slice(4) }), source: say.usbAsSpecified() }],
    };
  }),
  leadRule('usb-hub-on-hub', (lead) => {
    if (!isHub(lead.from.type) || !isHub(lead.to.type)) return null;
    return {
      severity: 'watch',
      says: say.onHub({ device: lead.from.device.name, device2: lead.to.device.name }),
      why: [{ says: say.oneSocketOneRate(), source: say.usbAsSpecified() }],
    };
  }),
  rule('wire', 'usb-shared-pictures', ({ plugged, box }) => {
    const byHub = new Map<string, (typeof plugged)[number][]>();
    for (const lead of plugged) {
      if (isHub(lead.to.type) && lead.from.port.picture?.link?.startsWith('usb') && !lead.from.port.picture.compressed)
        byHub.set(lead.to.device.id, [...(byHub.get(lead.to.device.id) ?? []), lead]);
    }
    return [...byHub]
      .filter(([, leads]) => leads.length > 1)
      .map(([hubId, leads]) => ({
        at: hubId,
        severity: 'fix' as const,
        where: { deviceIds: [hubId, ...leads.map((l) => l.from.device.id)], cableIds: leads.map((l) => l.cable.id) },
        says: say.hubVideo({
          and: listOf(
            'and',
            leads.map((l) => l.from.device.name),
          ),
          device: box(hubId).device.name,
        }),
        why: [
          {
            says: say.gbitSForVideo(),
            source: say.whatUsbLeavesFor(),
          },
        ],
      }));
  }),
  rule('wire', 'usb-nobody-listens', (context) => {
    const taken = new Set(context.rig.cables.map((c) => `${c.from.deviceId}/${c.from.portId}`));
    return context.plugged.flatMap((lead) => {
      const { to } = lead;
      if (!to.type.hosts || !isUsb(to.port)) return [];
      if (forwardsInput(context, to, taken) !== 'not-taken') return [];
      return [
        {
          at: lead.cable.id,
          severity: 'watch' as const,
          where: onLead(lead),
          says: say.deviceUnused({ device: to.device.name, device2: lead.from.device.name, port: to.port.name }),
          why: [{ says: say.noAppInDrawing(), source: say.thisRig() }],
        },
      ];
    });
  }),
];
