import { connectorOf, type Form, usualChain } from '#core/plug/index.ts';
import { type Rule, rule } from './finding.ts';
import { isBalanced, type LeadSeen, sayLead } from './leads.ts';

/** What the lead has to be right for, by what its ends carry; the best first. */
export function formsOf(lead: LeadSeen): Form[] {
  const { from, to } = lead;
  if (from.port.level === 'digital' || to.port.level === 'digital') return ['bits'];
  if (from.port.level === 'speaker' || to.port.level === 'speaker') return ['loudspeaker'];
  if (from.port.channels.length > 1 || to.port.channels.length > 1) return ['stereo', 'headset'];
  return isBalanced(lead) ? ['balanced', 'mono'] : ['mono', 'balanced'];
}

/** Null where nothing is plugged at one of the ends: a program. */
export function chainOf(lead: LeadSeen): ReturnType<typeof usualChain> | 'nothing-to-plug' {
  const { from, to } = lead;
  if (!connectorOf(from.port.connector) || !connectorOf(to.port.connector)) return 'nothing-to-plug';
  // The best form that there is a lead for: a balanced way is not given up because a mono lead is cheaper.
  for (const form of formsOf(lead)) {
    const chain = usualChain(from.port.connector, to.port.connector, [form]);
    if (chain) return chain;
  }
  return null;
}

/** From so many parts on there is an adapter in it: a contact more that can fail, and a lever on the socket. */
const WITH_ADAPTER = 2;

export const plugRules: readonly Rule[] = [
  rule('wire', 'plug-none-fits', ({ leads }) =>
    leads.flatMap((lead) => {
      if (chainOf(lead) !== null) return [];
      const [from, to] = [connectorOf(lead.from.port.connector)!, connectorOf(lead.to.port.connector)!];
      return [
        {
          at: lead.cable.id,
          severity: 'stop' as const,
          where: { cableIds: [lead.cable.id] },
          says: `No lead goes from ${sayLead(lead)}: ${from.name} into ${to.name}. A box has to stand between, or another socket be used.`,
          asks: lead.cable.known === 'assumed' ? `Is there a lead from ${sayLead(lead)}, ${lead.to.port.name}?` : null,
          why: [{ says: 'no chain of a lead and adapters joins these two', source: 'the list of leads and adapters' }],
        },
      ];
    }),
  ),
  rule('wire', 'plug-needs-adapter', ({ leads }) =>
    leads.flatMap((lead) => {
      const chain = chainOf(lead);
      if (!chain || chain === 'nothing-to-plug' || chain.parts.length < WITH_ADAPTER) return [];
      return [
        {
          at: lead.cable.id,
          severity: 'watch' as const,
          where: { cableIds: [lead.cable.id] },
          says: `From ${sayLead(lead)} it takes ${chain.parts.length} parts: ${chain.parts.map((p) => p.name).join(', ')}. Each is a contact that can fail: secure them, and carry a second set.`,
          why: [{ says: `price ${chain.price[0]} to ${chain.price[1]} euros`, source: 'typical prices' }],
        },
      ];
    }),
  ),
];
