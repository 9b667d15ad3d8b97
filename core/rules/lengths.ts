import type { Said, Text } from '#core/base/said/index.ts';
import { type Cable, findTypes, type Rig } from '#core/model/rig/index.ts';
import type { Rule } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { familyOf, isBalanced, type LeadSeen, leadBetween, sayLead } from './leads.ts';
import { say } from './sayings.ts';

/** How long a cable may be, meters: what careful people keep to, and where the standard or practice ends. */
interface Limit {
  readonly name: Text;
  readonly carefulM: number;
  readonly mostM: number;
  readonly source: Text;
  readonly instead: Text;
}

const USB_2: Limit = {
  name: say.usb(),
  carefulM: 1.5,
  mostM: 5,
  source: say.usbMMakersAdvise(),
  instead: say.shorterCableOrActive(),
};
const USB_3: Limit = {
  name: say.usbAtGbitS(),
  carefulM: 1.5,
  mostM: 3,
  source: say.usbRuleThumbStandard(),
  instead: say.shorterCableOrActiveOr(),
};
const HDMI: Limit = {
  name: say.hdmiAtGbitS(),
  carefulM: 3,
  mostM: 5,
  source: say.passiveCablesRuleThumb(),
  instead: say.shorterCableOrOptical(),
};
const UNBALANCED: Limit = {
  name: say.unbalancedCable(),
  carefulM: 3,
  mostM: 6,
  source: say.ruleThumbHumGrows(),
  instead: say.balancedCableWhereBoth(),
};
const BALANCED: Limit = {
  name: say.balancedCable(),
  carefulM: 30,
  mostM: 100,
  source: say.ruleThumb(),
  instead: say.stageBoxCloserBy(),
};
const OPTICAL: Limit = {
  name: say.opticalCable(),
  carefulM: 5,
  mostM: 10,
  source: say.ruleThumb(),
  instead: say.shorterCableOrCoaxial(),
};
const NETWORK: Limit = {
  name: say.ethernetCable(),
  carefulM: 100,
  mostM: 100,
  source: say.ieee(),
  instead: say.switchHalfway(),
};

const USB_3_SOCKETS = new Set(['usb-b3', 'usb-c']);

/** Null where no length is known to matter: headphones, speakers. */
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

const question = (lead: LeadSeen): Said | null =>
  lead.cable.known === 'assumed' ? say.howLongIs({ lead: sayLead(lead), lengthM: lead.cable.lengthM }) : null;

export const lengthRules: readonly Rule[] = [
  leadRule('length-too-long', (lead) => {
    const limit = limitOf(lead);
    const { lengthM } = lead.cable;
    if (!limit || lengthM <= limit.mostM) return null;
    return {
      severity: 'fix',
      where: { cableIds: [lead.cable.id] },
      says: say.cableTooLong({
        lead: sayLead(lead),
        lengthM,
        limit: limit.name,
        mostM: limit.mostM,
        instead: limit.instead,
      }),
      asks: question(lead),
      why: [{ says: say.limitIs({ limit: limit.name, mostM: limit.mostM }), source: limit.source }],
    };
  }),
  leadRule('length-not-careful', (lead) => {
    const limit = limitOf(lead);
    const { lengthM } = lead.cable;
    if (!limit || lengthM <= limit.carefulM || lengthM > limit.mostM) return null;
    return {
      severity: 'watch',
      where: { cableIds: [lead.cable.id] },
      says: say.cableLong({
        lead: sayLead(lead),
        lengthM,
        limit: limit.name,
        mostM: limit.mostM,
        carefulM: limit.carefulM,
      }),
      asks: question(lead),
      why: [
        {
          says: say.limitAdvised({ limit: limit.name, carefulM: limit.carefulM, mostM: limit.mostM }),
          source: limit.source,
        },
      ],
    };
  }),
];
