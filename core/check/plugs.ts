import { bringsPowerOnly, connectorOf, endOf, leadOf, UNPLUGGED, type Wiring } from '#core/plug/index.ts';
import type { LevelClass } from '#core/rig/index.ts';
import { type Reason, type Rule, rule, type Severity } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { askLead, chainOf, type LeadEnd, type LeadSeen, leadOn, leadWanted, sayLead } from './leads.ts';

/** From so many parts on there is an adapter in it: a contact more that can fail, and a lever on the socket. */
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
  says: (lead: LeadSeen) => string,
  why: Reason,
  fixes?: Rule['fixes'],
): Rule =>
  leadRule(id, (lead) => (picks(lead) ? { severity, says: says(lead), why: [why] } : null), fixes ? { fixes } : {});

/** What the plugs and wires make of a lead between two analogue ends; null for bits, and for what has a map of its own. */
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
/** Two sides that come to one with opposite signs: left minus right. */
const subtracts = (w: Wiring): boolean =>
  w.carried.some((a) => a.nominal > 0 && w.carried.some((b) => b.to === a.to && b.from !== a.from && b.nominal < 0));
/** One side that comes to two with opposite signs. */
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
  says: 'tip left, ring 1 right, ring 2 ground, sleeve microphone; a third contact covers the last two and joins them',
  source: 'four-contact plugs as CTIA wires them',
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

/** The lead and adapters that bring over what the plain lead does not. */
const putInRight: Rule['fixes'] = ({ plugged }, { where }) => {
  const lead = plugged.find((l) => l.cable.id === where.cableIds[0]);
  const right = lead && leadWanted(lead).right?.chain;
  if (!lead || !right || right.parts.length === 0) return [];
  const cable = { ...lead.cable, parts: right.parts.map((p) => p.id) };
  return [
    {
      label: `${sayLead(lead)}: put in ${right.parts.map((p) => p.name).join(', ')}`,
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
          says: `${device.name}, ${port.name}: no connector is known by the name ‘${port.connector}’, so nothing can be said of leads there. Choose one in Gear.`,
          why: [{ says: 'no plug of the list goes into it', source: 'the list of connectors' }],
        })),
    ),
  ),
  leadRule('plug-none-fits', (lead) => {
    if (chainOf(lead) !== null) return null;
    const [from, to] = [connectorOf(lead.from.port.connector)!, connectorOf(lead.to.port.connector)!];
    return {
      severity: 'stop',
      says: `No lead goes from ${sayLead(lead)}: ${from.name} into ${to.name}. A box has to stand between, or another socket be used.`,
      why: [{ says: 'no chain of a lead and adapters joins these two', source: 'the list of leads and adapters' }],
    };
  }),
  leadRule('plug-needs-adapter', (lead) => {
    const chain = chainOf(lead);
    if (!chain || chain === 'nothing-to-plug' || chain.parts.length < WITH_ADAPTER) return null;
    return {
      severity: 'watch',
      says: `From ${sayLead(lead)} it takes ${chain.parts.length} parts: ${chain.parts.map((p) => p.name).join(', ')}. Each is a contact that can fail: secure them, and carry a second set.`,
      why: [{ says: `price ${chain.price[0]} to ${chain.price[1]} euros`, source: 'typical prices' }],
    };
  }),
  leadRule(
    ADAPTER_RULE,
    (lead) =>
      threeInFour(lead)
        ? {
            severity: 'fix',
            says: `${lead.from.device.name} has a plug with three contacts in the four-contact socket of ${lead.to.device.name}: its microphone is joined to ground and nothing is heard. Take an adapter from a three-contact microphone plug to four contacts.`,
            asks:
              lead.cable.parts === undefined
                ? `Does an adapter to four contacts stand between ${lead.from.device.name} and ${lead.to.device.name}?`
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
    (lead) =>
      `${lead.from.device.name} has its microphone on the fourth contact; ${lead.to.device.name}, ${lead.to.port.name} has three and does not reach it. Take an adapter that splits sound and microphone.`,
    FOUR_CONTACTS,
    putInRight,
  ),
  onLeads(
    'plug-nothing-over',
    'fix',
    (lead) => test((w) => w.carried.length === 0)(lead) && !threeInFour(lead) && !fourInThree(lead),
    (lead) =>
      `${sayLead(lead)}: nothing comes through. Where both contacts of a plug carry the same, or one is joined to ground, a balanced input hears no difference. Take the lead or adapter that fits the two.`,
    { says: 'contact against contact, as the plugs and wires meet', source: 'contacts of the two sockets' },
    putInRight,
  ),
  onLeads(
    'plug-stereo-into-balanced',
    'fix',
    test(subtracts),
    (lead) =>
      `A stereo plug from ${sayLead(lead)} meets a balanced mono input: it hears left minus right, and whatever stands in the middle is gone. Take one side by a mono lead, or a stereo pair of inputs.`,
    { says: 'a balanced input amplifies the difference of tip and ring', source: 'balanced inputs' },
    putInRight,
  ),
  onLeads(
    'plug-balanced-into-stereo',
    'fix',
    test(turnsOneOver),
    (lead) =>
      `A balanced output from ${sayLead(lead)} meets a stereo input: the right side comes inverted, and in mono nothing is left. Take an unbalanced lead that feeds both sides.`,
    { says: 'the second wire of a balanced output carries the same upside down', source: 'balanced outputs' },
    putInRight,
  ),
  onLeads(
    'plug-one-side',
    'watch',
    test((w, lead) => w.carried.length > 0 && sidesLost(w, lead).length > 0 && endOf(lead.to.port).sides === 1),
    (lead) =>
      `${sayLead(lead)}: two sides go into one. A mono plug in a stereo socket takes the left and shorts the right to ground; use a lead for one side, or one that sums both through resistors.`,
    { says: 'one side is enough for a voice that stands in the middle', source: 'as practised' },
    putInRight,
  ),
  onLeads(
    'plug-side-silent',
    'watch',
    test((w, lead) => w.carried.length > 0 && endOf(lead.to.port).sides > new Set(w.carried.map((c) => c.to)).size),
    (lead) =>
      `${sayLead(lead)}: only one side of ${lead.to.port.name} gets anything. Take a lead that feeds both sides, or pan the channel to the middle.`,
    { says: 'one plug, one side', source: 'contacts of the two sockets' },
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
        says: `${sayLead(lead)}: ${on.chain.parts.map((p) => p.name).join(', ') || 'a plug that goes straight in'} does not fit between these two sockets, so nothing comes through. Choose what is really plugged there, or take the parts that fit.`,
        why: [{ says: 'plug against socket, one after the other', source: 'the list of leads and adapters' }],
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
        says: `${sayLead(lead)}: ${on.chain.parts.map((p) => p.name).join(', ')} has no wires for data, so nothing comes through. Take a lead with data.`,
        why: [{ says: 'two wires of four: power and ground', source: 'USB as specified' }],
      };
    },
    { fixes: putInRight },
  ),
  onLeads(
    'plug-insert-out',
    'watch',
    ({ from }) => from.port.connector === 'jack-635-insert',
    (lead) =>
      `${sayLead(lead)}: an insert sends on the tip and takes back on the ring. A plug pushed in all the way cuts the strip off; push a mono plug to the first click, or take an insert lead.`,
    { says: 'tip send, ring return', source: 'inserts as usually wired' },
  ),
  onLeads(
    'plug-insert-in',
    'fix',
    ({ to }) => to.port.connector === 'jack-635-insert',
    (lead) => `${sayLead(lead)} goes into an insert, which is no input. Take a line input.`,
    { says: 'tip send, ring return: what is fed to the tip meets an output', source: 'inserts as usually wired' },
  ),
  onLeads(
    'plug-small-socket',
    'watch',
    ({ cable, from, to }) =>
      cable.lengthM > HEAVY_LEAD_M && [from, to].some(({ port }) => SMALL_SOCKETS.has(port.connector)),
    (lead) =>
      `${lead.cable.lengthM} m of lead hang on a small socket from ${sayLead(lead)}. Clamp it at the box, or use a short soft piece between.`,
    { says: `small sockets bend with more than about ${HEAVY_LEAD_M} m on them`, source: 'as practised' },
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
      says: `${group.length} outputs are joined at ${group[0]!.to.device.name}, ${group[0]!.to.port.name}: ${group.map((l) => l.from.device.name).join(' and ')} drive each other. Two outputs are never joined by a Y: use a mixer, or a resistor of 470 ohm to 1 kohm in each.`,
      asks: group.some((l) => l.cable.known === 'assumed')
        ? `Do ${group.length} leads go into ${group[0]!.to.device.name}, ${group[0]!.to.port.name}?`
        : null,
      why: [{ says: 'an output of 100 ohm sees the other’s 100 ohm as its load', source: 'output impedances' }],
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
      says: `${group.length} leads leave ${group[0]!.from.device.name}, ${group[0]!.from.port.name}. A Y lead does not split HDMI or USB: put a splitter between, or use another output.`,
      asks: group.some((l) => l.cable.known === 'assumed')
        ? `Do ${group.length} leads leave ${group[0]!.from.device.name}, ${group[0]!.from.port.name}?`
        : null,
      why: [{ says: 'the source talks with one screen only', source: 'HDMI and USB as specified' }],
    })),
  ),
];
