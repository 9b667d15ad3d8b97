import { type Cable, findTypes, type Rig } from '#core/rig/index.ts';
import type { Rule } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { familyOf, isBalanced, type LeadSeen, leadBetween, sayLead } from './leads.ts';

/** How long a lead may be, metres: what careful people keep to, and where the standard or practice ends. */
interface Limit {
  readonly name: string;
  readonly carefulM: number;
  readonly mostM: number;
  readonly source: string;
  readonly instead: string;
}

const USB_2: Limit = {
  name: 'USB 2',
  carefulM: 1.5,
  mostM: 5,
  source: 'USB 2.0, 5 m; makers advise 1.5 m',
  instead: 'a shorter lead, or an active extension: five pieces of 5 m and a lead at most',
};
const USB_3: Limit = {
  name: 'USB 3 at 5 Gbit/s',
  carefulM: 1.5,
  mostM: 3,
  source: 'USB 3, as practised; the standard states loss, not length',
  instead: 'a shorter lead, or an active or optical one as rated',
};
const HDMI: Limit = {
  name: 'HDMI at 18 Gbit/s',
  carefulM: 3,
  mostM: 5,
  source: 'passive leads, as practised',
  instead: 'a shorter lead, or an optical one, which runs one way',
};
const UNBALANCED: Limit = {
  name: 'an unbalanced lead',
  carefulM: 3,
  mostM: 6,
  source: 'as practised: hum grows with length',
  instead: 'a balanced lead where both boxes have one, or a DI box and XLR',
};
const BALANCED: Limit = {
  name: 'a balanced lead',
  carefulM: 30,
  mostM: 100,
  source: 'as practised',
  instead: 'a stage box nearer by',
};
const OPTICAL: Limit = {
  name: 'an optical lead',
  carefulM: 5,
  mostM: 10,
  source: 'as practised',
  instead: 'a shorter lead, or a coaxial one',
};
const NETWORK: Limit = {
  name: 'a network lead',
  carefulM: 100,
  mostM: 100,
  source: 'IEEE 802.3',
  instead: 'a switch halfway',
};

const USB_3_SOCKETS = new Set(['usb-b3', 'usb-c']);

/** Null where no length is known to matter: headphones, loudspeakers. */
export function limitOf(lead: LeadSeen): Limit | null {
  const { from, to } = lead;
  switch (familyOf(lead)) {
    case 'usb':
      return USB_3_SOCKETS.has(from.port.connector) || USB_3_SOCKETS.has(to.port.connector) ? USB_3 : USB_2;
    case 'hdmi':
      return HDMI;
    case 'optical':
      return OPTICAL;
    case 'network':
      return NETWORK;
    case 'jack':
    case 'xlr':
    case 'phono':
      if (from.port.level === 'headphone' && to.port.level === 'headphone') return null;
      return isBalanced(lead) ? BALANCED : UNBALANCED;
    default:
      return null;
  }
}

/** The limit of a cable that may not be plugged yet; null where no length matters. */
export const limitFor = (rig: Rig, cable: Cable): Limit | null =>
  cable.medium === 'lead' ? limitOf(leadBetween(rig, findTypes(rig), cable)) : null;

const question = (lead: LeadSeen): string | null =>
  lead.cable.known === 'assumed'
    ? `How long is the lead from ${sayLead(lead)}? ${lead.cable.lengthM} m is assumed.`
    : null;

export const lengthRules: readonly Rule[] = [
  leadRule('length-too-long', (lead) => {
    const limit = limitOf(lead);
    const { lengthM } = lead.cable;
    if (!limit || lengthM <= limit.mostM) return null;
    return {
      severity: 'fix',
      where: { cableIds: [lead.cable.id] },
      says: `The lead from ${sayLead(lead)} is ${lengthM} m; ${limit.name} ends at ${limit.mostM} m. Use ${limit.instead}.`,
      asks: question(lead),
      why: [{ says: `${limit.name}: at most ${limit.mostM} m`, source: limit.source }],
    };
  }),
  leadRule('length-not-careful', (lead) => {
    const limit = limitOf(lead);
    const { lengthM } = lead.cable;
    if (!limit || lengthM <= limit.carefulM || lengthM > limit.mostM) return null;
    return {
      severity: 'watch',
      where: { cableIds: [lead.cable.id] },
      says: `The lead from ${sayLead(lead)} is ${lengthM} m: within what ${limit.name} allows (${limit.mostM} m), over the ${limit.carefulM} m that careful people keep to. If it drops out, try a shorter one first.`,
      asks: question(lead),
      why: [{ says: `${limit.name}: careful ${limit.carefulM} m, at most ${limit.mostM} m`, source: limit.source }],
    };
  }),
];
