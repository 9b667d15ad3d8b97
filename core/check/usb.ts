import { connectorOf } from '#core/plug/index.ts';
import { endsBehind, isHub, type PortSpec, usbMeets, usbRoleOf } from '#core/rig/index.ts';
import { type Context, type Rule, rule } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { type LeadEnd, onLead } from './leads.ts';

const isUsb = ({ connector }: PortSpec): boolean => connectorOf(connector)?.kind === 'usb';

const ORDER = ['usb-2', 'usb-5', 'usb-10'];

/** Whether a computer hands on what a socket brings: to a software end, and whether anything takes it there. */
function handsOn({ evaluation, box }: Context, { device, port }: LeadEnd, taken: ReadonlySet<string>) {
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
  return hands ? 'not-taken' : 'nothing';
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
          says: `${programs.map((id) => box(id).device.name).join(' and ')} both take the picture of ${box(deviceId).device.name}, ${box(deviceId).port(portId)?.name}. One program at a time gets it: let the first hand it on as a virtual camera, or take another capture device.`,
          why: [{ says: 'a capture device is opened by one program', source: 'USB video, as systems treat it' }],
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
        says: `${charges.device.name}, ${charges.port.name}, gives power and nothing else: nothing passes. Take a socket with data.`,
        why: [{ says: 'sockets for charging have no data', source: 'USB as specified' }],
      };
    return {
      severity: 'stop',
      says: hosts
        ? `${from.device.name} and ${to.device.name} are joined by USB, socket to socket, and neither is a device of the other: nothing passes. A capture device, a sound interface or the network goes between.`
        : `${from.device.name} stands at ${to.device.name}, ${to.port.name}, and neither of them is a computer: nothing passes. Plug both into the computer.`,
      why: [{ says: 'USB talks between one host and its devices', source: 'USB as specified' }],
    };
  }),
  leadRule('usb-slow-socket', (lead) => {
    const [has, gets] = [lead.from.port.picture, lead.to.port.picture];
    if (!has?.link?.startsWith('usb') || !gets?.link?.startsWith('usb') || has.compressed) return null;
    if (ORDER.indexOf(has.link) <= ORDER.indexOf(gets.link)) return null;
    return {
      severity: 'watch',
      says: `${lead.from.device.name} is made for a faster socket than ${lead.to.device.name}, ${lead.to.port.name}: fewer pictures, or another colour. First remedy for a wrong picture: another socket.`,
      why: [{ says: `${has.link.slice(4)} Gbit/s wanted`, source: 'USB as specified' }],
    };
  }),
  leadRule('usb-hub-on-hub', (lead) => {
    if (!isHub(lead.from.type) || !isHub(lead.to.type)) return null;
    return {
      severity: 'watch',
      says: `${lead.from.device.name} hangs on ${lead.to.device.name}: pictures and sound share one socket of the computer, and each hub can fail. Use sockets of the computer.`,
      why: [{ says: 'one socket, one rate for all behind it', source: 'USB as specified' }],
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
        says: `${leads.map((l) => l.from.device.name).join(' and ')} send pictures uncompressed through ${box(hubId).device.name}: together more than one socket carries. Plug them to sockets of the computer, best on two controllers.`,
        why: [
          {
            says: '3.2 Gbit/s for pictures on a 5 Gbit/s socket, shared',
            source: 'what USB leaves for video, typical',
          },
        ],
      }));
  }),
  rule('wire', 'usb-nobody-listens', (context) => {
    const taken = new Set(context.rig.cables.map((c) => `${c.from.deviceId}/${c.from.portId}`));
    return context.plugged.flatMap((lead) => {
      const { to } = lead;
      if (!to.type.hosts || !isUsb(to.port)) return [];
      if (handsOn(context, to, taken) !== 'not-taken') return [];
      return [
        {
          at: lead.cable.id,
          severity: 'watch' as const,
          where: onLead(lead),
          says: `Nothing on ${to.device.name} takes what ${lead.from.device.name} brings by ${to.port.name}. Choose it in a program, or take the lead out.`,
          why: [{ says: 'no program is drawn that opens it', source: 'this rig' }],
        },
      ];
    });
  }),
];
