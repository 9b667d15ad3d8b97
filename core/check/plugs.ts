import { connectorOf, type Form, UNPLUGGED, usualChain } from '#core/plug/index.ts';
import type { LevelClass } from '#core/rig/index.ts';
import { type Reason, type Rule, rule, type Severity } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { askLead, isBalanced, type LeadEnd, type LeadSeen, sayLead } from './leads.ts';

/** What the lead has to be right for, by what its ends carry; the best first. */
export function formsOf(lead: LeadSeen): Form[] {
  const { from, to } = lead;
  if (from.port.level === 'digital' || to.port.level === 'digital') return ['bits'];
  if (from.port.level === 'speaker' || to.port.level === 'speaker') return ['loudspeaker'];
  if (from.port.channels.length > 1 || to.port.channels.length > 1) return ['stereo', 'headset'];
  return isBalanced(lead) ? ['balanced', 'mono'] : ['mono', 'balanced'];
}

/** The microphone of a headset socket lies on its fourth contact: only a plug with four reaches it. */
const takenBy = ({ connector, level }: LeadSeen['to']['port']): string =>
  connector === 'jack-35-trrs' && level === 'microphone' ? 'jack-35-trrs-microphone' : connector;

/** Null where nothing is plugged at one of the ends: a program. */
export function chainOf(lead: LeadSeen): ReturnType<typeof usualChain> | 'nothing-to-plug' {
  const { from, to } = lead;
  if (!connectorOf(from.port.connector) || !connectorOf(to.port.connector)) return 'nothing-to-plug';
  // The best form that there is a lead for: a balanced way is not given up because a mono lead is cheaper.
  for (const form of formsOf(lead)) {
    const chain = usualChain(from.port.connector, takenBy(to.port), [form]);
    if (chain) return chain;
  }
  return null;
}

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
): Rule => leadRule(id, (lead) => (picks(lead) ? { severity, says: says(lead), why: [why] } : null));

/** A plug with three contacts goes straight into the socket, by what is known of the parts there. */
const threeInFour = ({ cable, from, to }: LeadSeen): boolean => {
  if (to.port.connector !== 'jack-35-trrs' || to.port.level !== 'microphone') return false;
  if (from.port.connector === 'plug-35-trrs' || from.port.connector === 'jack-35-trrs') return false;
  return (
    !(cable.parts ?? ['?']).some((id) => id.endsWith('trrs-35')) &&
    (cable.parts !== undefined || from.port.connector === 'plug-35-trs')
  );
};

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

/** The adapter that brings a three-contact microphone plug to four contacts. */
const putInAdapter: Rule['fixes'] = ({ plugged }, { where }) => {
  const lead = plugged.find((l) => l.cable.id === where.cableIds[0]);
  const chain = lead && chainOf(lead);
  if (!lead || !chain || chain === 'nothing-to-plug') return [];
  const cable = { ...lead.cable, parts: chain.parts.map((p) => p.id) };
  return [
    {
      label: `${lead.from.device.name}: put in ${chain.parts.map((p) => p.name).join(', ')}`,
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
    { fixes: putInAdapter },
  ),
  onLeads(
    'plug-four-in-three',
    'fix',
    ({ cable, from, to }) =>
      cable.parts === undefined &&
      from.port.connector === 'plug-35-trrs' &&
      from.port.level === 'microphone' &&
      to.port.connector === 'jack-35-trs',
    (lead) =>
      `${lead.from.device.name} has its microphone on the fourth contact; ${lead.to.device.name}, ${lead.to.port.name} has three and does not reach it. Take an adapter that splits sound and microphone.`,
    FOUR_CONTACTS,
  ),
  onLeads(
    'plug-stereo-into-balanced',
    'fix',
    ({ from, to }) =>
      analogue(from.port.level) &&
      from.port.channels.length === 2 &&
      ['jack-35-trs', 'jack-635-trs', 'jack-35-trrs'].includes(from.port.connector) &&
      to.port.channels.length === 1 &&
      ['combo-xlr', 'xlr-female', 'jack-635-trs'].includes(to.port.connector),
    (lead) =>
      `A stereo plug from ${sayLead(lead)} meets a balanced mono input: it hears left minus right, and whatever stands in the middle is gone. Take one side by a mono lead, or a stereo pair of inputs.`,
    { says: 'a balanced input amplifies the difference of tip and ring', source: 'balanced inputs' },
  ),
  onLeads(
    'plug-balanced-into-stereo',
    'fix',
    ({ from, to }) =>
      from.port.channels.length === 1 &&
      ['xlr-male', 'jack-635-trs'].includes(from.port.connector) &&
      from.port.level !== 'headphone' &&
      to.port.channels.length === 2 &&
      ['jack-35-trs', 'jack-635-trs'].includes(to.port.connector),
    (lead) =>
      `A balanced output from ${sayLead(lead)} meets a stereo input: the right side comes inverted, and in mono nothing is left. Take an unbalanced lead that feeds both sides.`,
    { says: 'the second wire of a balanced output carries the same upside down', source: 'balanced outputs' },
  ),
  onLeads(
    'plug-one-side',
    'watch',
    ({ from, to }) =>
      analogue(from.port.level) &&
      from.port.channels.length === 2 &&
      to.port.channels.length === 1 &&
      ['jack-635-ts', 'jack-35-ts', 'phono'].includes(to.port.connector),
    (lead) =>
      `${sayLead(lead)}: two sides go into one. A mono plug in a stereo socket takes the left and shorts the right to ground; use a lead for one side, or one that sums both through resistors.`,
    { says: 'one side is enough for a voice that stands in the middle', source: 'as practised' },
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
