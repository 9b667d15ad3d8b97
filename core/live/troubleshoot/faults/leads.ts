import type { Said } from '#core/base/said/index.ts';
import { say } from '#core/live/troubleshoot/sayings.ts';
import { type Cable, type Edit, findTypes, type PortRef, type Rig } from '#core/model/rig/index.ts';
import { isBalanced, type LeadSeen, leadsOf, sayLead } from '#core/rules/index.ts';
import { deviceName } from '#core/signal/index.ts';
import { type DirectLook, type Fault, type FaultKind, WEIGHTS } from './fault.ts';

/** Long cables are trodden on and pulled. */
const LONG_M = 5;
const LONG_TIMES = 1.5;
const ANALOGUE = new Set(['microphone', 'line', 'headphone', 'speaker']);
/** Maximum number of wrong sockets that are considered per plug. */
const MAX_SOCKETS = 2;
const SWAP_S = 45;
const SWAP_LONG_S = 90;
const PLUGS_S = 10;
const PLUG_S = 8;
const SOCKETS_S = 15;
const RADIO_S = 20;

/** Every cable and radio link, and what may be wrong with it. */
export function leadFaults(rig: Rig): Fault[] {
  const types = findTypes(rig);
  const leads = leadsOf(rig, types);
  return [
    ...leads.filter((l) => !l.twin).flatMap((lead) => ofLead(lead, leads)),
    ...rig.cables.flatMap((cable) => (cable.medium === 'radio' ? ofRadio(rig, cable) : [])),
  ];
}

const unplug = (cables: readonly Cable[]): Edit => ({
  kind: 'batch',
  edits: cables.map((c) => ({ kind: 'unplug', cableId: c.id })),
});

function ofLead(lead: LeadSeen, leads: readonly LeadSeen[]): Fault[] {
  const { cable, from, to } = lead;
  const name = sayLead(lead);
  const times = cable.lengthM > LONG_M ? LONG_TIMES : 1;
  const swap: DirectLook = {
    id: `lead:${cable.id}`,
    asks: say.turnVolumesDownReseat({ name }),
    well: say.noChange(),
    deviceIds: [from.device.id, to.device.id],
    seconds: cable.lengthM > LONG_M ? SWAP_LONG_S : SWAP_S,
  };
  const looks = [swap, ...[from, to].map((end) => plugsOf(end, leads))];
  const fault = (kind: FaultKind, rest: Pick<Fault, 'says' | 'edit' | 'shows'> & Partial<Fault>): Fault => ({
    id: `${kind}:${cable.id}`,
    kind,
    mend: say.swapCableForAnother({ name }),
    dead: [],
    marks: [],
    weight: WEIGHTS[kind] * times,
    looks,
    ...rest,
  });
  const sides = sidesOf(cable, from.port, to.port);
  const analogue = ANALOGUE.has(from.port.level) && ANALOGUE.has(to.port.level);
  return [
    fault('lead-out', {
      says: say.plugCableIsOut({ name }),
      mend: say.reseatBothPlugsCable({ name }),
      edit: unplug(leads.filter((l) => sameSockets(l, lead)).map((l) => l.cable)),
      shows: say.betterCableWasOut({ lead: other(lead) }),
    }),
    ...(analogue && sides.length === 2
      ? sides.map((side, i) =>
          fault('one-side', {
            id: `one-side:${cable.id}:${side.from}`,
            says: say.oneSideCableIs({ name, from: side.from }),
            edit: replug(cable, { map: [side] }),
            weight: (WEIGHTS['one-side'] * times) / 2,
            shows: say.betterCableOnlyPassed({ lead: other(lead), side: i === 0 ? 'left' : 'right' }),
          }),
        )
      : []),
    fault('worn', {
      says: say.cableHasWornContact({ name }),
      edit: null,
      marks: [
        {
          flag: from.port.channels.some((c) => c.carries === 'picture') ? 'picture-odd' : 'drop-outs',
          cableId: cable.id,
        },
      ],
      shows: say.cableCutsOutWhen({ lead: other(lead) }),
    }),
    ...(analogue && !isBalanced(lead)
      ? [
          fault('screen-broken', {
            says: say.shieldCableIsBroken({ name }),
            edit: null,
            marks: [{ flag: 'hum' as const, cableId: cable.id }],
            shows: say.betterCableHummed({ lead: other(lead) }),
          }),
        ]
      : []),
    ...wrongSockets(lead, leads),
  ];
}

const other = ({ from, to }: LeadSeen): Said => say.values({ from: from.device.name, to: to.device.name });

/** All plugs of a device in one go. */
function plugsOf({ device }: LeadSeen['from'], leads: readonly LeadSeen[]): DirectLook {
  const own = leads.filter((l) => !l.twin && (l.from.device.id === device.id || l.to.device.id === device.id));
  return {
    id: `plugs:${device.id}`,
    asks: say.turnVolumesDownReseatEvery({ device: device.name }),
    well: say.noChange(),
    deviceIds: [device.id],
    seconds: PLUGS_S + PLUG_S * own.length,
  };
}

const sameSockets = (a: LeadSeen, b: LeadSeen): boolean => {
  const key = ({ device, port }: LeadSeen['from']) => `${device.id}/${port.socket ?? port.id}`;
  const ends = (l: LeadSeen) => [key(l.from), key(l.to)].sort().join(' ');
  return ends(a) === ends(b);
};

type Port = LeadSeen['from']['port'];
type Side = { readonly from: string; readonly to: string };

/** Which channel goes to which, as the cable is drawn: like to like where nothing is said. */
function sidesOf(cable: Cable, from: Port, to: Port): Side[] {
  if (cable.map) return [...cable.map];
  return from.channels.filter((c) => to.channels.some((t) => t.id === c.id)).map((c) => ({ from: c.id, to: c.id }));
}

/** A cable or link as it is otherwise. */
export const replug = (cable: Cable, changes: Partial<Cable>): Edit => ({
  kind: 'batch',
  edits: [
    { kind: 'unplug', cableId: cable.id },
    { kind: 'plug', cable: { ...cable, ...changes } as Cable },
  ],
});

/** A plug in a socket like its own, beside it: a free one, or that of another cable whose plug is then in this one. */
function wrongSockets(lead: LeadSeen, leads: readonly LeadSeen[]): Fault[] {
  const both = (['from', 'to'] as const).flatMap((end) => {
    const here = lead[end];
    const alike = here.type.ports
      .filter(
        (p) =>
          p.id !== here.port.id &&
          p.direction === here.port.direction &&
          p.connector === here.port.connector &&
          p.channels.length === here.port.channels.length &&
          p.socket === undefined,
      )
      .slice(0, MAX_SOCKETS);
    return here.port.socket !== undefined ? [] : alike.map((port) => ({ end, port }));
  });
  return both.map(({ end, port }): Fault => {
    const here = lead[end];
    const other = leads.find((l) => l[end].device.id === here.device.id && l[end].port.id === port.id);
    const ref = (p: Port): PortRef => ({ deviceId: here.device.id, portId: p.id });
    const edits: Edit[] = [
      { kind: 'unplug', cableId: lead.cable.id },
      ...(other ? [{ kind: 'unplug' as const, cableId: other.cable.id }] : []),
      { kind: 'plug', cable: { ...lead.cable, [end]: ref(port) } },
      ...(other ? [{ kind: 'plug' as const, cable: { ...other.cable, [end]: ref(here.port) } }] : []),
    ];
    const peer = end === 'from' ? lead.to.device.name : lead.from.device.name;
    return {
      id: `wrong-socket:${lead.cable.id}:${end}:${port.id}`,
      kind: 'wrong-socket',
      says: say.insteadTwoAreSwapped({
        device: here.device.name,
        end,
        peer,
        taken: port.name,
        port: here.port.name,
        swapped: other ? 'yes' : 'no',
      }),
      mend: say.moveCableToInto({
        device: here.device.name,
        end,
        peer,
        port: here.port.name,
      }),
      edit: { kind: 'batch', edits },
      dead: [],
      marks: [],
      weight: WEIGHTS['wrong-socket'] / both.length,
      looks: [
        {
          id: `sockets:${here.device.id}`,
          asks: say.checkSocketsIsEvery({ device: here.device.name }),
          well: say.allAsDrawn(),
          deviceIds: [here.device.id],
          seconds: SOCKETS_S,
        },
      ],
      shows: say.cableToIsIn({ end, peer, port: port.name }),
    };
  });
}

function ofRadio(rig: Rig, cable: Cable): Fault[] {
  const link = say.values({ from: deviceName(rig, cable.from.deviceId), to: deviceName(rig, cable.to.deviceId) });
  const look: DirectLook = {
    id: `radio:${cable.id}`,
    asks: say.checkBothEndsWireless({ link }),
    well: say.allOkNoChange(),
    deviceIds: [cable.from.deviceId, cable.to.deviceId],
    seconds: RADIO_S,
  };
  const base = { kind: 'radio' as const, dead: [], looks: [look], weight: WEIGHTS.radio / 2 };
  return [
    {
      ...base,
      id: `radio:${cable.id}:gone`,
      says: say.wirelessLinkIsDown({ link }),
      mend: say.putNewBatteriesIn({ link }),
      edit: { kind: 'unplug', cableId: cable.id },
      marks: [],
      shows: say.oneEndIsOff(),
    },
    {
      ...base,
      id: `radio:${cable.id}:weak`,
      says: say.wirelessLinkIsWeak({ link }),
      mend: say.bringBothEndsWireless({ link }),
      edit: null,
      marks: [{ flag: 'drop-outs', cableId: cable.id }],
      shows: say.betterWhenCloser(),
    },
  ];
}
