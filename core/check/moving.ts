import { endsThat, endsThatLeadTo, type PortRef, settingFor } from '#core/rig/index.ts';
import type { Box } from './box.ts';
import { type Rule, rule } from './finding.ts';
import { leadRule } from './lead-rule.ts';
import { askLead, isBalanced, type LeadSeen, onLead, sayLead } from './leads.ts';

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

/** A microphone, a headset, a keying box between: whatever comes from there has come in by a microphone of its own. */
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
      says: `${end.device.name} moves, and a lead of ${lead.cable.lengthM} m holds it: ${sayLead(lead)}. It has to be long enough for the whole movement, light, and made fast at both ends before anything is balanced; across a floor it is taped down or hung over heads. Or go by radio.`,
      why: [{ says: 'the socket is the weakest place', source: 'as practised' }],
    };
  }),
  leadRule('moving-lead-heavy', (lead) => {
    const { cable, from, to } = lead;
    if (!from.device.moves || !to.device.moves || cable.lengthM <= SHORT_LEAD_M) return null;
    return {
      severity: 'watch',
      says: `${sayLead(lead)} is carried along with ${cable.lengthM} m of lead: short and soft leads, made fast before balancing, pull less at a stabiliser or a head.`,
      why: [{ says: `up to ${SHORT_LEAD_M} m`, source: 'as practised' }],
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
          says: `${box(cable.from.deviceId).device.name} is ${cable.lengthM} m from ${box(cable.to.deviceId).device.name} by ${bluetooth ? 'Bluetooth' : 'radio'}: reckon with ${most} m among people. Try it with the room full, or bring the receiver nearer.`,
          why: [{ says: `${most} m in a room`, source: 'typical' }],
        },
      ];
    }),
  ),
  rule('wire', 'radio-crowded', ({ rig }) => {
    // There and back between two boxes is one channel.
    const ends = (c: (typeof rig.cables)[number]) => [c.from.deviceId, c.to.deviceId].sort().join();
    const radio = rig.cables.filter((c) => c.medium === 'radio');
    const links = radio.filter((c, i) => radio.findIndex((o) => ends(o) === ends(c)) === i);
    if (links.length < CROWDED_LINKS) return [];
    return [
      {
        at: 'all',
        severity: 'watch' as const,
        where: { cableIds: links.map((c) => c.id) },
        says: `${links.length} radio links share the air of one room, besides networks and telephones. Set their channels apart, and keep senders a metre from receivers.`,
        why: [{ says: `from ${CROWDED_LINKS} on`, source: 'as practised' }],
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
        says: `${sayLead(lead)} is an aerial of ${lead.cable.lengthM} m on a transmitter: its sending will be heard as a buzz. Put ferrites on both ends, go balanced, and lead it away from the aerial.`,
        asks: askLead(lead),
        why: [{ says: 'unbalanced leads rectify strong radio fields at the first input', source: 'as practised' }],
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
            says: `${device.name} is keyed by voice, and ${box(by.from.deviceId).device.name} feeds it: whatever sounds there goes on the air. Switch voice keying off, and key by hand or pedal. Licences forbid music and tones.`,
            why: [{ says: 'voice keying cannot tell a voice from a game', source: 'radios as they come' }],
          },
        ];
      }),
    (context, { where }) =>
      where.setting
        ? [
            {
              label: `${context.box(where.setting.deviceId).device.name}, voice keying: off`,
              changes: [{ ...where.setting, value: true }],
              edit: { kind: 'set-setting', ...where.setting, setting: { value: true, known: 'assumed' } },
            },
          ]
        : [],
  ),
];
