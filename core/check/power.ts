import { connectorOf } from '#core/plug/index.ts';
import { type DeviceType, type PowerKind, settingOf } from '#core/rig/index.ts';
import { type Box, type SettingSeen, settingSeen } from './box.ts';
import { type Context, type Rule, rule, setFix } from './finding.ts';
import { type LeadDraft, leadRule } from './lead-rule.ts';
import { askLead, type LeadSeen, onLead } from './leads.ts';

const PHANTOM = { says: '48 V through 6.8 kohm, 10 mA at most', source: 'IEC 61938' };
const USB = {
  says: 'USB 2 gives 500 mA a socket, USB 3 900 mA, a hub fed by the computer 100 to 150 mA',
  source: 'USB as specified',
};
/** Batteries fade, and it may be cold: so much more than the session is wanted. */
const SPARE = 1.25;
const HUNGRY_MILLIAMPS = 400;

/** Whether a socket's power is on: by its switch, or always. */
function standing({ to }: LeadSeen, kind: PowerKind): { on: boolean; seen: SettingSeen | null } {
  const { gives } = to.port;
  const seen = gives?.setting ? settingSeen(to.device, to.type, gives.setting) : null;
  return { on: gives?.kind === kind && (!seen || seen.value === 'on' || seen.value === true), seen };
}

const phantomSwitch =
  (value: 'on' | 'off'): Rule['fixes'] =>
  ({ leads }, { where }) => {
    const lead = leads.find((l) => l.cable.id === where.cableIds[0]);
    const settingId = lead?.to.port.gives?.setting;
    return lead && settingId ? setFix(lead.to, settingId, value) : [];
  };

/** What rests on the switch of an input's power: the switch is asked, where the lead is known. */
const onSwitch = (lead: LeadSeen, seen: SettingSeen | null): Pick<LeadDraft, 'asks' | 'rests'> => ({
  asks: askLead(lead),
  ...(seen && !askLead(lead) && { rests: { box: lead.to, seen } }),
});

const fed = new WeakMap<Context, Map<string, Box[]>>();

/** Devices fed by another one, by the document. */
function fedBy(context: Context, deviceId: string): readonly Box[] {
  let all = fed.get(context);
  if (!all) {
    all = new Map();
    for (const box of context.boxes) {
      const { fedBy: by } = box.device;
      if (by) all.set(by, [...(all.get(by) ?? []), box]);
    }
    fed.set(context, all);
  }
  return all.get(deviceId) ?? [];
}

const drawn = ({ type }: Box): number => type.power?.milliamps ?? 0;

/** What a device takes from the sockets that it is plugged to over USB. */
const usbLeads = (context: Context): LeadSeen[] =>
  context.leads.filter((l) => l.from.port.takes?.kind === 'usb' || l.to.port.takes?.kind === 'usb');

const ends = (lead: LeadSeen): { taker: LeadSeen['from']; giver: LeadSeen['from'] } =>
  lead.from.port.takes?.kind === 'usb' ? { taker: lead.from, giver: lead.to } : { taker: lead.to, giver: lead.from };

/** What the socket gives: written on any of the ends behind it. */
const givenBy = (context: Context, { device, port }: LeadSeen['from']): number | null => {
  const { type } = context.box(device.id);
  const same = type.ports.filter((p) => p.id === port.id || (port.socket && p.socket === port.socket));
  return same.find((p) => p.gives?.kind === 'usb')?.gives?.milliamps ?? null;
};

/** How long a box runs on its battery when new and warm; null where it does not run on one. */
export function batteryHours({ device, type }: Pick<Box, 'device' | 'type'>): number | null {
  const { power } = type;
  if (!power?.hours) return null;
  const supply = power.supply ? type.settings.find((s) => s.id === power.supply) : undefined;
  const onBattery = supply ? settingOf(device, supply).value === 'battery' : power.by[0] === 'battery';
  return onBattery && device.fedBy === undefined ? power.hours : null;
}

const feeds = (type: DeviceType): NonNullable<DeviceType['power']>['feeds'] => type.power?.feeds;

export const powerRules: readonly Rule[] = [
  leadRule(
    'power-phantom-missing',
    (lead) => {
      if (lead.from.port.takes?.kind !== 'phantom') return null;
      const { on, seen } = standing(lead, 'phantom');
      if (on) return null;
      const says = seen
        ? `${lead.from.device.name} needs phantom power, and that of ${lead.to.device.name} is off: nothing is heard. Faders down first, then switch it on.`
        : `${lead.from.device.name} needs phantom power, and ${lead.to.device.name}, ${lead.to.port.name} has none. Take an input that has it, or a supply between.`;
      return { severity: 'stop', says, ...onSwitch(lead, seen), why: [PHANTOM] };
    },
    { fixes: phantomSwitch('on'), all: true },
  ),
  leadRule(
    'power-phantom-harms',
    (lead) => {
      if (!lead.from.port.harmedBy?.includes('phantom')) return null;
      const { on, seen } = standing(lead, 'phantom');
      if (!on) return null;
      return {
        severity: 'stop',
        says: `Phantom power stands on ${lead.to.device.name}, ${lead.to.port.name}, and ${lead.from.device.name} must not get it. Switch it off and wait a minute before you plug.`,
        ...onSwitch(lead, seen),
        why: [
          PHANTOM,
          {
            says: 'phantom power does not go into unbalanced plugs, ribbons or plug-in electrets',
            source: 'as practised',
          },
        ],
      };
    },
    { fixes: phantomSwitch('off'), all: true },
  ),
  leadRule(
    'power-phantom-into-output',
    (lead) => {
      const { on, seen } = standing(lead, 'phantom');
      if (!on || !['line', 'headphone'].includes(lead.from.port.level) || lead.from.port.harmedBy?.includes('phantom'))
        return null;
      return {
        severity: 'watch',
        says: `Phantom power stands on ${lead.to.device.name}, ${lead.to.port.name}, and meets the output of ${lead.from.device.name}. Not every output bears it: switch it off, or put a transformer or DI box between.`,
        ...onSwitch(lead, seen),
        why: [PHANTOM],
      };
    },
    { fixes: phantomSwitch('off'), all: true },
  ),
  leadRule(
    'power-plug-in-missing',
    (lead) => {
      if (lead.from.port.takes?.kind !== 'plug-in' || lead.to.port.level !== 'microphone') return null;
      if (lead.to.port.gives?.kind === 'plug-in') return null;
      return {
        severity: 'stop',
        says: `${lead.from.device.name} wants a few volts from its jack; ${lead.to.device.name}, ${lead.to.port.name} gives none${lead.to.port.gives?.kind === 'phantom' ? ', and phantom power is no substitute' : ''}. Put a converter from plug-in to phantom power between, or use a radio pack or recorder that gives it.`,
        why: [{ says: 'plug-in power is 2 to 5 V on the tip', source: 'electrets on 3.5 mm plugs' }],
      };
    },
    { all: true },
  ),
  rule('wire', 'power-usb-socket', (context) =>
    usbLeads(context).flatMap((lead) => {
      const { taker, giver } = ends(lead);
      const given = givenBy(context, giver);
      const taken = taker.port.takes!.milliamps;
      if (given === null || taken <= given || context.box(taker.device.id).device.fedBy) return [];
      return [
        {
          at: lead.cable.id,
          severity: 'fix' as const,
          where: onLead(lead),
          says: `${taker.device.name} takes ${taken} mA; ${giver.device.name}, ${giver.port.name} gives ${given} mA. Use another socket, or a hub with its own supply.`,
          asks: askLead(lead),
          why: [USB],
        },
      ];
    }),
  ),
  rule('wire', 'power-usb-hub-sum', (context) =>
    context.boxes.flatMap((hub) => {
      if (hub.type.power?.by[0] !== 'usb' || feeds(hub.type)?.kind !== 'usb' || hub.device.fedBy) return [];
      const onIt = usbLeads(context).filter((l) => ends(l).giver.device.id === hub.device.id);
      const up = context.plugged.find((l) => l.from.device.id === hub.device.id && l.to.device.id !== hub.device.id);
      const given = up ? givenBy(context, up.to) : null;
      const sum = onIt.reduce((total, l) => total + ends(l).taker.port.takes!.milliamps, 0) + drawn(hub);
      if (given === null || sum <= given) return [];
      return [
        {
          at: hub.device.id,
          severity: 'fix' as const,
          where: { deviceIds: [hub.device.id, ...onIt.map((l) => ends(l).taker.device.id)] },
          says: `${hub.device.name} and what is on it take ${sum} mA; the socket behind it gives ${given} mA. Use a hub with its own supply.`,
          why: [USB],
        },
      ];
    }),
  ),
  rule('wire', 'power-usb-hungry-pair', (context) =>
    context.boxes.flatMap((hub) => {
      if (hub.type.power?.by[0] !== 'usb' || feeds(hub.type)?.kind !== 'usb') return [];
      const hungry = usbLeads(context).filter(
        (l) => ends(l).giver.device.id === hub.device.id && ends(l).taker.port.takes!.milliamps >= HUNGRY_MILLIAMPS,
      );
      if (hungry.length < 2) return [];
      return [
        {
          at: hub.device.id,
          severity: 'fix' as const,
          where: { deviceIds: [hub.device.id, ...hungry.map((l) => ends(l).taker.device.id)] },
          says: `${hungry.map((l) => ends(l).taker.device.name).join(' and ')} are both hungry and share ${hub.device.name}. Give each a socket of the computer of its own.`,
          why: [USB],
        },
      ];
    }),
  ),
  rule('wire', 'power-outlets', (context) =>
    context.boxes.flatMap((strip) => {
      const given = feeds(strip.type);
      const on = given ? fedBy(context, strip.device.id) : [];
      if (!given || on.length <= given.outlets) return [];
      return [
        {
          at: strip.device.id,
          severity: 'fix' as const,
          where: { deviceIds: [strip.device.id, ...on.map((b) => b.device.id)] },
          says: `${on.length} things are to be fed from ${strip.device.name}, which has ${given.outlets} outlets. Take a longer strip; do not chain strips.`,
          why: [{ says: `${given.outlets} outlets`, source: `typical of ${strip.type.name}` }],
        },
      ];
    }),
  ),
  rule('wire', 'power-strip-on-strip', ({ boxes, box }) =>
    boxes.flatMap((strip) => {
      const other = strip.device.fedBy ? box(strip.device.fedBy) : null;
      if (feeds(strip.type)?.kind !== 'mains' || !other || feeds(other.type)?.kind !== 'mains') return [];
      return [
        {
          at: strip.device.id,
          severity: 'stop' as const,
          where: { deviceIds: [strip.device.id, other.device.id] },
          says: `${strip.device.name} is plugged into ${other.device.name}. Strips are not chained: take one long enough, from the wall. Local rules come first; ask an electrician where you doubt.`,
          why: [
            {
              says: 'contacts in a row grow warm, and the first carries everything',
              source: 'usual safety rules for outlet strips',
            },
          ],
        },
      ];
    }),
  ),
  rule('wire', 'power-feed-kind', ({ boxes, box }) =>
    boxes.flatMap((fed) => {
      if (!fed.device.fedBy) return [];
      const from = box(fed.device.fedBy);
      const kind = feeds(from.type)?.kind;
      const takes = fed.type.power?.by ?? [];
      if (kind && (takes as readonly string[]).includes(kind)) return [];
      return [
        {
          at: fed.device.id,
          severity: 'stop' as const,
          where: { deviceIds: [fed.device.id, from.device.id] },
          says: kind
            ? `${fed.device.name} is to be fed from ${from.device.name}, which gives ${kind === 'usb' ? '5 V' : 'mains'}; it takes ${takes.join(' or ') || 'no power'}.`
            : `${fed.device.name} is to be fed from ${from.device.name}, which feeds nothing.`,
          why: [{ says: `takes ${takes.join(', ') || 'nothing'}`, source: `typical of ${fed.type.name}` }],
        },
      ];
    }),
  ),
  rule('wire', 'power-supply-sum', (context) =>
    context.boxes.flatMap((supply) => {
      const given = feeds(supply.type);
      if (given?.kind !== 'usb' || given.milliamps === undefined) return [];
      const on = fedBy(context, supply.device.id);
      const sum = on.reduce((total, b) => total + drawn(b), 0);
      if (sum <= given.milliamps) return [];
      return [
        {
          at: supply.device.id,
          severity: 'fix' as const,
          where: { deviceIds: [supply.device.id, ...on.map((b) => b.device.id)] },
          says: `What is fed from ${supply.device.name} takes ${sum} mA; it gives ${given.milliamps} mA in all.`,
          why: [{ says: `${given.milliamps} mA`, source: `typical of ${supply.type.name}` }],
        },
      ];
    }),
  ),
  rule('wire', 'power-battery-short', ({ boxes, rig }) =>
    boxes.flatMap((box) => {
      const hours = batteryHours(box);
      const session = rig.session.hours;
      if (hours === null || session === undefined || hours >= session * SPARE) return [];
      const short = hours < session;
      return [
        {
          at: box.device.id,
          severity: short ? ('fix' as const) : ('watch' as const),
          where: { deviceIds: [box.device.id] },
          says: `${box.device.name} runs about ${hours} h on its battery; the session takes ${session} h${short ? '' : ', which leaves no reserve'}. Have a second one charged, or feed it.`,
          why: [
            { says: `${hours} h when new and at 20 °C; 0.8 of it at 0 °C`, source: `typical of ${box.type.name}` },
            { says: `${SPARE} times the session is wanted`, source: 'as practised' },
          ],
        },
      ];
    }),
  ),
  rule('wire', 'power-nothing-feeds', (context) => {
    const brought = new Set<string>();
    for (const { from, to } of context.leads)
      if ([from, to].some((e) => connectorOf(e.port.connector)?.kind === 'usb')) {
        brought.add(from.device.id);
        brought.add(to.device.id);
      }
    for (const c of context.rig.cables)
      if (c.medium === 'software') {
        brought.add(c.from.deviceId);
        brought.add(c.to.deviceId);
      }
    return context.boxes.flatMap(({ device, type }) => {
      // A box that lives on USB alone, without a lead that brings it and without a supply.
      if (type.power?.by.length !== 1 || type.power.by[0] !== 'usb' || device.fedBy || brought.has(device.id))
        return [];
      return [
        {
          at: device.id,
          severity: 'watch' as const,
          where: { deviceIds: [device.id] },
          says: `${device.name} needs 5 V from USB, and nothing is drawn that brings it. Plan a supply and its lead.`,
          asks: `What feeds ${device.name}? It takes ${type.power.milliamps ?? 100} mA at 5 V.`,
          why: [{ says: `${type.power.milliamps ?? 100} mA at 5 V`, source: `typical of ${type.name}` }],
        },
      ];
    });
  }),
];
