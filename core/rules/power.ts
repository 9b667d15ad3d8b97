import { group } from 'd3-array';
import { memoized } from '#core/base/memo/index.ts';
import { listOf } from '#core/base/said/index.ts';
import { connectorOf } from '#core/model/plug/index.ts';
import { type DeviceType, type PowerKind, runsOnBattery } from '#core/model/rig/index.ts';
import { type Box, type SettingSeen, settingSeen } from './box.ts';
import { type Context, type Rule, rule, setFix } from './finding.ts';
import { type LeadDraft, leadRule } from './lead-rule.ts';
import { askLead, type LeadSeen, onLead } from './leads.ts';
import { say } from './sayings.ts';

const PHANTOM = { says: say.vThroughKohmMa(), source: say.iec() };
const USB = {
  says: say.usbGivesMaPer(),
  source: say.usbAsSpecified(),
};
/** Battery reserve factor, for aging and cold. */
export const BATTERY_SPARE = 1.25;
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

/** What rests on the switch of an input's power: the switch is asked, where the cable is known. */
const onSwitch = (lead: LeadSeen, seen: SettingSeen | null): Pick<LeadDraft, 'asks' | 'rests'> => ({
  asks: askLead(lead),
  ...(seen && !askLead(lead) && { rests: { box: lead.to, seen } }),
});

const fed = memoized(({ boxes }: Context) => group(boxes, ({ device }) => device.fedBy));

/** Devices fed by another one, by the document. */
const fedBy = (context: Context, deviceId: string): readonly Box[] => fed(context).get(deviceId) ?? [];

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

/** How long a device runs on its battery when new and warm; null where it does not run on one. */
export function batteryHours({ device, type }: Pick<Box, 'device' | 'type'>): number | null {
  return runsOnBattery(device, type) && device.fedBy === undefined ? (type.power?.hours ?? null) : null;
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
        ? say.phantomOff({ device: lead.from.device.name, device2: lead.to.device.name })
        : say.phantomNone({ device: lead.from.device.name, device2: lead.to.device.name, port: lead.to.port.name });
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
        says: say.phantomHarms({
          device: lead.to.device.name,
          port: lead.to.port.name,
          device2: lead.from.device.name,
        }),
        ...onSwitch(lead, seen),
        why: [
          PHANTOM,
          {
            says: say.phantomPowerMustNot(),
            source: say.ruleThumb(),
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
        says: say.phantomIntoOutput({
          device: lead.to.device.name,
          port: lead.to.port.name,
          device2: lead.from.device.name,
        }),
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
        says: say.pluginPower({
          device: lead.from.device.name,
          device2: lead.to.device.name,
          port: lead.to.port.name,
          substitute: lead.to.port.gives?.kind === 'phantom' ? say.andPhantomPowerIs() : '',
        }),
        why: [{ says: say.plugInPowerIs(), source: say.electretsOnMmPlugs() }],
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
          says: say.usbCurrent({
            device: taker.device.name,
            taken,
            device2: giver.device.name,
            port: giver.port.name,
            given,
          }),
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
          says: say.hubCurrent({ device: hub.device.name, sum, given }),
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
          says: say.bothHungry({
            and: listOf(
              'and',
              hungry.map((l) => ends(l).taker.device.name),
            ),
            device: hub.device.name,
          }),
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
          says: say.outletsFull({ on: on.length, device: strip.device.name, outlets: given.outlets }),
          why: [{ says: say.outlets({ outlets: given.outlets }), source: say.typical({ type: strip.type.name }) }],
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
          says: say.stripOnStrip({ device: strip.device.name, device2: other.device.name }),
          why: [
            {
              says: say.contactsInRowGet(),
              source: say.usualSafetyRulesFor(),
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
            ? say.wrongSupply({
                device: fed.device.name,
                device2: from.device.name,
                mains: kind === 'usb' ? '5 V' : say.acPower(),
                power: listOf('or', takes) || say.noPower(),
              })
            : say.noSupply({ device: fed.device.name, device2: from.device.name }),
          why: [
            {
              says: say.needs({ nothing: takes.join(', ') || 'nothing' }),
              source: say.typical({ type: fed.type.name }),
            },
          ],
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
          says: say.supplyOverload({ device: supply.device.name, sum, milliamps: given.milliamps }),
          why: [{ says: say.ma({ milliamps: given.milliamps }), source: say.typical({ type: supply.type.name }) }],
        },
      ];
    }),
  ),
  rule('wire', 'power-battery-short', ({ boxes, rig }) =>
    boxes.flatMap((box) => {
      const hours = batteryHours(box);
      const session = rig.session.hours;
      if (hours === null || session === undefined || hours >= session * BATTERY_SPARE) return [];
      const short = hours < session;
      return [
        {
          at: box.device.id,
          severity: short ? ('fix' as const) : ('watch' as const),
          where: { deviceIds: [box.device.id] },
          says: say.batteryShort({
            device: box.device.name,
            hours,
            session,
            reserve: short ? '' : say.whichLeavesNoReserve(),
          }),
          why: [
            { says: say.hWhenNewAnd({ hours }), source: say.typical({ type: box.type.name }) },
            { says: say.timesSessionIsNeeded({ SPARE: BATTERY_SPARE }), source: say.ruleThumb() },
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
      // A device that lives on USB alone, without a cable that brings it and without a supply.
      if (type.power?.by.length !== 1 || type.power.by[0] !== 'usb' || device.fedBy || brought.has(device.id))
        return [];
      return [
        {
          at: device.id,
          severity: 'watch' as const,
          where: { deviceIds: [device.id] },
          says: say.needsUsbPower({ device: device.name }),
          asks: say.whatPowers({ device: device.name, n100: type.power.milliamps ?? 100 }),
          why: [{ says: say.maAtV({ n100: type.power.milliamps ?? 100 }), source: say.typical({ type: type.name }) }],
        },
      ];
    });
  }),
];
