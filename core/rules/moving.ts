import { endsThat, endsThatLeadTo, type PortRef, settingFor } from '#core/model/rig/index.ts';
import type { Box } from './box.ts';
import { type Rule, rule } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { askLead, isBalanced, type LeadSeen, onLead, sayLead } from './leads.ts';
import { say } from './sayings.ts';

/** Across a room with walls or people; by sight much more. */
const BLUETOOTH_M = 8;
const RADIO_M = 30;
const CROWDED_LINKS = 4;
const SHORT_LEAD_M = 1;
const AERIAL_LEAD_M = 1;

const moved = ({ from, to }: LeadSeen): LeadSeen['from'] | null =>
  from.device.moves && !to.device.moves ? from : to.device.moves && !from.device.moves ? to : null;

/** Whether an end of a cable is one by which a transmitter sends, or is given what it sends. */
const isSending = ({ device, type }: Box, { deviceId, portId }: PortRef): boolean =>
  deviceId === device.id && endsThatLeadTo(type, endsThat(type, 'on-air')).has(portId);

/** A microphone, a headset or a push-to-talk box in the path: what comes from there has a microphone of its own. */
const onlyAVoice = ({ type }: Box): boolean => {
  const ins = type.ports.filter((p) => p.direction === 'in');
  return ins.length > 0 && ins.every((p) => p.level === 'air' || p.level === 'microphone' || p.level === 'headphone');
};

/** Things that are carried about, and radio. */
export const movingRules: readonly Rule[] = [
  leadRule('moving-lead', (lead) => {
    const end = moved(lead);
    if (!end) return null;
    return {
      severity: 'watch',
      says: say.movesOnCable({ device: end.device.name, lengthM: lead.cable.lengthM, lead: sayLead(lead) }),
      why: [{ says: say.socketIsWeakestPoint(), source: say.ruleThumb() }],
    };
  }),
  leadRule('moving-lead-heavy', (lead) => {
    const { cable, from, to } = lead;
    if (!from.device.moves || !to.device.moves || cable.lengthM <= SHORT_LEAD_M) return null;
    return {
      severity: 'watch',
      says: say.carriedCable({ lead: sayLead(lead), lengthM: cable.lengthM }),
      why: [{ says: say.upToM({ SHORT_LEAD_M }), source: say.ruleThumb() }],
    };
  }),
  rule('wire', 'radio-range', ({ rig, box }) =>
    rig.cables.flatMap((cable) => {
      if (cable.medium !== 'radio') return [];
      const bluetooth = box(cable.from.deviceId).port(cable.from.portId)?.connector === 'bluetooth';
      const most = bluetooth ? BLUETOOTH_M : RADIO_M;
      if (cable.lengthM <= most) return [];
      return [
        {
          at: cable.id,
          severity: 'watch' as const,
          where: { cableIds: [cable.id], deviceIds: [cable.from.deviceId, cable.to.deviceId] },
          says: say.wirelessFar({
            device: box(cable.from.deviceId).device.name,
            lengthM: cable.lengthM,
            device2: box(cable.to.deviceId).device.name,
            radio: bluetooth ? say.bluetooth() : say.wirelessLink(),
            most,
          }),
          why: [{ says: say.metersInRoom({ most }), source: 'typical' }],
        },
      ];
    }),
  ),
  rule('wire', 'radio-crowded', ({ rig }) => {
    // There and back between two devices is one channel.
    const ends = (c: (typeof rig.cables)[number]) => [c.from.deviceId, c.to.deviceId].sort().join();
    const radio = rig.cables.filter((c) => c.medium === 'radio');
    const links = radio.filter((c, i) => radio.findIndex((o) => ends(o) === ends(c)) === i);
    if (links.length < CROWDED_LINKS) return [];
    return [
      {
        at: 'all',
        severity: 'watch' as const,
        where: { cableIds: links.map((c) => c.id) },
        says: say.crowdedAir({ links: links.length }),
        why: [{ says: say.fromOn({ CROWDED_LINKS }), source: say.ruleThumb() }],
      },
    ];
  }),
  rule('wire', 'transmitter-near-lead', ({ plugged, boxes, rig }) => {
    const senders = boxes.filter(
      (b) =>
        endsThat(b.type, 'on-air').length > 0 && rig.cables.some((c) => isSending(b, c.from) || isSending(b, c.to)),
    );
    if (senders.length === 0) return [];
    return plugged
      .filter(
        (l) =>
          ['line', 'microphone', 'headphone'].includes(l.from.port.level) &&
          !isBalanced(l) &&
          l.cable.lengthM > AERIAL_LEAD_M &&
          senders.some((s) => s.device.id === l.from.device.id || s.device.id === l.to.device.id),
      )
      .map((lead) => ({
        at: lead.cable.id,
        severity: 'watch' as const,
        where: onLead(lead),
        says: say.cableAsAntenna({ lead: sayLead(lead), lengthM: lead.cable.lengthM }),
        asks: askLead(lead),
        why: [{ says: say.unbalancedCablesRectify(), source: say.ruleThumb() }],
      }));
  }),
  rule(
    'wire',
    'transmitter-voice-keyed',
    ({ boxes, rig, box }) =>
      boxes.flatMap(({ device, type, setting }) => {
        const key = settingFor(type, 'no-voice-keying');
        if (!key || setting(key.id)?.value !== false) return [];
        const sends = endsThatLeadTo(type, endsThat(type, 'on-air'));
        const fed = rig.cables.filter((c) => c.to.deviceId === device.id && sends.has(c.to.portId));
        const by = fed.find((c) => !onlyAVoice(box(c.from.deviceId)));
        if (!by) return [];
        return [
          {
            at: device.id,
            severity: 'stop' as const,
            where: {
              deviceIds: [device.id, by.from.deviceId],
              cableIds: [by.id],
              setting: { deviceId: device.id, settingId: key.id },
            },
            says: say.voiceKeyed({ device: device.name, device2: box(by.from.deviceId).device.name }),
            why: [{ says: say.voiceKeyingCantTell(), source: say.radiosAtTheirDefaults() }],
          },
        ];
      }),
    (context, { where }) =>
      where.setting
        ? [
            {
              label: say.voiceKeyingOff({ device: context.box(where.setting.deviceId).device.name }),
              changes: [{ ...where.setting, value: true }],
              edit: { kind: 'set-setting', ...where.setting, setting: { value: true, known: 'assumed' } },
            },
          ]
        : [],
  ),
];
