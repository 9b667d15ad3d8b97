import { listOf, type Said } from '#core/base/said/index.ts';
import { bringsPowerOnly, connectorOf, endOf, leadOf, UNPLUGGED, type Wiring } from '#core/model/plug/index.ts';
import type { LevelClass } from '#core/model/rig/index.ts';
import { type Reason, type Rule, rule, type Severity } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { askLead, chainOf, type LeadEnd, type LeadSeen, leadOn, leadWanted, sayLead } from './leads.ts';
import { say } from './sayings.ts';

/** From this many parts on a cable has adapters in it: more contacts that can fail, and leverage on the socket. */
const WITH_ADAPTER = 2;
/** What a small socket bears without help. */
const HEAVY_LEAD_M = 2;

const SMALL_SOCKETS = new Set(['hdmi-micro', 'usb-micro', 'hdmi-mini']);
const analogue = (level: LevelClass): boolean => level === 'line' || level === 'headphone' || level === 'microphone';

/** Findings on leads that a test picks out. */
const onLeads = (
  id: string,
  severity: Severity,
  picks: (lead: LeadSeen) => boolean,
  says: (lead: LeadSeen) => Said,
  why: Reason,
  fixes?: Rule['fixes'],
): Rule =>
  leadRule(id, (lead) => (picks(lead) ? { severity, says: says(lead), why: [why] } : null), fixes ? { fixes } : {});

/** What the plugs and wires make of a cable between two analog ends; null for bits, and for what has a map of its own. */
const wiringOn = (lead: LeadSeen): Wiring | null => (lead.cable.map ? null : (leadOn(lead)?.wiring ?? null));
const test = (picks: (wiring: Wiring, lead: LeadSeen) => boolean) => (lead: LeadSeen) => {
  const wiring = wiringOn(lead);
  return wiring !== null && picks(wiring, lead);
};
const isMicrophone = ({ from }: LeadSeen): boolean => from.port.level === 'microphone';
/** A microphone whose wire is joined to ground: a plug with three contacts in a socket with four. */
const threeInFour = test((w, lead) => isMicrophone(lead) && w.deaf.length > 0 && w.carried.length === 0);
/** A microphone on the fourth contact of its plug, where the socket has none. */
const fourInThree = test(
  (w, lead) =>
    isMicrophone(lead) &&
    connectorOf(lead.from.port.connector)?.plugs[0] === 'trrs-35' &&
    w.carried.length === 0 &&
    w.deaf.length === 0,
);
/** Two channels summed into one with opposite polarity: left minus right. */
const subtracts = (w: Wiring): boolean =>
  w.carried.some((a) => a.nominal > 0 && w.carried.some((b) => b.to === a.to && b.from !== a.from && b.nominal < 0));
/** One channel split into two with opposite polarity. */
const turnsOneOver = (w: Wiring): boolean =>
  w.carried.some((a) => a.nominal > 0 && w.carried.some((b) => b.from === a.from && b.to !== a.to && b.nominal < 0));
const sidesLost = (w: Wiring, lead: LeadSeen): number[] =>
  endOf(lead.from.port).sides === 1
    ? []
    : Array.from({ length: endOf(lead.from.port).sides }, (_, side) => side).filter(
        (side) => !w.carried.some((c) => c.from === side),
      );

/** The rule that asks what stands between the plugs. */
export const ADAPTER_RULE = 'plug-three-in-four';

const FOUR_CONTACTS: Reason = {
  says: say.tipLeftRingRight(),
  source: say.polePlugsAsCtia(),
};

/** Sockets that several leads claim: outputs into one input, or one digital output for two. */
function shared(
  leads: readonly LeadSeen[],
  end: (lead: LeadSeen) => LeadEnd,
  picks: (lead: LeadSeen) => boolean,
): LeadSeen[][] {
  const groups = new Map<string, LeadSeen[]>();
  for (const lead of leads) {
    if (!picks(lead)) continue;
    const { at } = end(lead);
    const group = groups.get(at);
    if (group) group.push(lead);
    else groups.set(at, [lead]);
  }
  return [...groups.values()].filter((g) => g.length > 1);
}

/** The cable and adapters that bring over what the plain lead does not. */
const putInRight: Rule['fixes'] = ({ plugged }, { where }) => {
  const lead = plugged.find((l) => l.cable.id === where.cableIds[0]);
  const right = lead && leadWanted(lead).right?.chain;
  if (!lead || !right || right.parts.length === 0) return [];
  const cable = { ...lead.cable, parts: right.parts.map((p) => p.id) };
  return [
    {
      label: say.withParts({ lead: sayLead(lead), join: right.parts.map((p) => p.name) }),
      changes: [{ cableId: cable.id, cable }],
      edit: {
        kind: 'batch',
        edits: [
          { kind: 'unplug', cableId: cable.id },
          { kind: 'plug', cable },
        ],
      },
    },
  ];
};

export const plugRules: readonly Rule[] = [
  rule('wire', 'plug-unknown-connector', ({ boxes }) =>
    boxes.flatMap(({ device, type }) =>
      type.ports
        .filter((p) => !connectorOf(p.connector) && !UNPLUGGED.has(p.connector))
        .map((port) => ({
          at: `${device.id}/${port.id}`,
          severity: 'watch' as const,
          where: { deviceIds: [device.id] },
          says: say.unknownConnector({ device: device.name, port: port.name, connector: port.connector }),
          why: [{ says: say.noPlugListFits(), source: say.listConnectors() }],
        })),
    ),
  ),
  leadRule('plug-none-fits', (lead) => {
    if (chainOf(lead) !== null) return null;
    const [from, to] = [connectorOf(lead.from.port.connector)!, connectorOf(lead.to.port.connector)!];
    return {
      severity: 'stop',
      says: say.noCableFits({ from: from.name, to: to.name, lead: sayLead(lead) }),
      why: [{ says: say.noChainCableAnd(), source: say.listCablesAndAdapters() }],
    };
  }),
  leadRule('plug-needs-adapter', (lead) => {
    const chain = chainOf(lead);
    if (!chain || chain === 'nothing-to-plug' || chain.parts.length < WITH_ADAPTER) return null;
    return {
      severity: 'watch',
      says: say.manyParts({
        lead: sayLead(lead),
        parts: chain.parts.length,
        join: chain.parts.map((p) => p.name),
      }),
      why: [{ says: say.priceToEuros({ n0: chain.price[0], n1: chain.price[1] }), source: say.typicalPrices() }],
    };
  }),
  leadRule(
    ADAPTER_RULE,
    (lead) =>
      threeInFour(lead)
        ? {
            severity: 'fix',
            says: say.threePole({ device: lead.from.device.name, device2: lead.to.device.name }),
            asks:
              lead.cable.parts === undefined
                ? say.isAdapterThere({ device: lead.from.device.name, device2: lead.to.device.name })
                : askLead(lead),
            why: [FOUR_CONTACTS],
          }
        : null,
    { fixes: putInRight },
  ),
  onLeads(
    'plug-four-in-three',
    'fix',
    fourInThree,
    (lead) => say.fourPole({ device: lead.from.device.name, device2: lead.to.device.name, port: lead.to.port.name }),
    FOUR_CONTACTS,
    putInRight,
  ),
  onLeads(
    'plug-nothing-over',
    'fix',
    (lead) => test((w) => w.carried.length === 0)(lead) && !threeInFour(lead) && !fourInThree(lead),
    (lead) => say.nothingThrough({ lead: sayLead(lead) }),
    { says: say.contactAgainstContactAs(), source: say.contactsTwoSockets() },
    putInRight,
  ),
  onLeads(
    'plug-stereo-into-balanced',
    'fix',
    test(subtracts),
    (lead) => say.stereoIntoBalanced({ lead: sayLead(lead) }),
    { says: say.balancedInputAmplifies(), source: say.balancedInputs() },
    putInRight,
  ),
  onLeads(
    'plug-balanced-into-stereo',
    'fix',
    test(turnsOneOver),
    (lead) => say.balancedIntoStereo({ lead: sayLead(lead) }),
    { says: say.secondWireBalancedOutput(), source: say.balancedOutputs() },
    putInRight,
  ),
  onLeads(
    'plug-one-side',
    'watch',
    test((w, lead) => w.carried.length > 0 && sidesLost(w, lead).length > 0 && endOf(lead.to.port).sides === 1),
    (lead) => say.twoIntoOne({ lead: sayLead(lead) }),
    { says: say.oneSideIsEnough(), source: say.ruleThumb() },
    putInRight,
  ),
  onLeads(
    'plug-side-silent',
    'watch',
    test((w, lead) => w.carried.length > 0 && endOf(lead.to.port).sides > new Set(w.carried.map((c) => c.to)).size),
    (lead) => say.oneSideOnly({ lead: sayLead(lead), port: lead.to.port.name }),
    { says: say.onePlugOneSide(), source: say.contactsTwoSockets() },
    putInRight,
  ),
  leadRule(
    'plug-parts-do-not-fit',
    (lead) => {
      const { parts } = lead.cable;
      const on = parts && leadOf(endOf(lead.from.port), endOf(lead.to.port), parts);
      if (!on || on.fits || chainOf(lead) === 'nothing-to-plug') return null;
      return {
        severity: 'stop',
        says: say.wrongCable({
          lead: sayLead(lead),
          in: on.chain.parts.length > 0 ? on.chain.parts.map((p) => p.name) : say.plugThatGoesStraight(),
        }),
        why: [{ says: say.plugAgainstSocketOne(), source: say.listCablesAndAdapters() }],
      };
    },
    { fixes: putInRight },
  ),
  leadRule(
    'plug-charging-only',
    (lead) => {
      const { parts } = lead.cable;
      const on = parts && leadOf(endOf(lead.from.port), endOf(lead.to.port), parts);
      if (!on?.fits || !bringsPowerOnly(on.chain.parts)) return null;
      return {
        severity: 'stop',
        says: say.noDataWires({ lead: sayLead(lead), join: on.chain.parts.map((p) => p.name) }),
        why: [{ says: say.twoWiresFourPower(), source: say.usbAsSpecified() }],
      };
    },
    { fixes: putInRight },
  ),
  onLeads(
    'plug-insert-out',
    'watch',
    ({ from }) => from.port.connector === 'jack-635-insert',
    (lead) => say.insertPlug({ lead: sayLead(lead) }),
    { says: say.tipSendRingReturn(), source: say.insertsAsUsuallyWired() },
  ),
  onLeads(
    'plug-insert-in',
    'fix',
    ({ to }) => to.port.connector === 'jack-635-insert',
    (lead) => say.insertNoInput({ lead: sayLead(lead) }),
    { says: say.tipSendRingReturnWhat(), source: say.insertsAsUsuallyWired() },
  ),
  onLeads(
    'plug-small-socket',
    'watch',
    ({ cable, from, to }) =>
      cable.lengthM > HEAVY_LEAD_M && [from, to].some(({ port }) => SMALL_SOCKETS.has(port.connector)),
    (lead) => say.heavyCable({ lengthM: lead.cable.lengthM, lead: sayLead(lead) }),
    { says: say.smallSocketsBendWith({ HEAVY_LEAD_M }), source: say.ruleThumb() },
  ),
  rule('wire', 'plug-outputs-joined', ({ plugged }) =>
    shared(
      plugged,
      (l) => l.to,
      (l) => analogue(l.from.port.level) && analogue(l.to.port.level),
    ).map((group) => ({
      at: group.map((l) => l.cable.id).join('+'),
      severity: 'stop' as const,
      where: {
        cableIds: group.map((l) => l.cable.id),
        deviceIds: [...group.map((l) => l.from.device.id), group[0]!.to.device.id],
      },
      says: say.outputsJoined({
        group: group.length,
        device: group[0]!.to.device.name,
        port: group[0]!.to.port.name,
        and: listOf(
          'and',
          group.map((l) => l.from.device.name),
        ),
      }),
      asks: group.some((l) => l.cable.known === 'assumed')
        ? say.doCablesGo({ group: group.length, device: group[0]!.to.device.name, port: group[0]!.to.port.name })
        : null,
      why: [{ says: say.outputOhmSeesOthers(), source: say.outputImpedances() }],
    })),
  ),
  rule('wire', 'plug-output-split', ({ plugged }) =>
    shared(
      plugged,
      (l) => l.from,
      (l) => l.from.port.level === 'digital',
    ).map((group) => ({
      at: group.map((l) => l.cable.id).join('+'),
      severity: 'stop' as const,
      where: {
        cableIds: group.map((l) => l.cable.id),
        deviceIds: [group[0]!.from.device.id, ...group.map((l) => l.to.device.id)],
      },
      says: say.noYCable({ group: group.length, device: group[0]!.from.device.name, port: group[0]!.from.port.name }),
      asks: group.some((l) => l.cable.known === 'assumed')
        ? say.doCablesLeave({ group: group.length, device: group[0]!.from.device.name, port: group[0]!.from.port.name })
        : null,
      why: [{ says: say.sourceTalksWithOne(), source: say.hdmiAndUsbAs() }],
    })),
  ),
];
