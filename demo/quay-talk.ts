import type { Rig } from '#core/model/rig/index.ts';
import { air, device, lead, light, must, ref, seen } from './parts.ts';

/**
 * Quay talk: an interview on a quay. A camera feeds an external recorder over HDMI; the host's lapel goes into the
 * recorder's own jack, the guest's comes by radio into the camera, and a recorder in the hand is the backup on a clock of
 * its own. Three ways, each with another delay.
 */
export const quayTalk: Rig = {
  schemaVersion: 3,
  name: 'Quay talk',
  notes: 'An interview on the quay, one hour, no mains. Clap at the start and at the end of every take.',
  session: { frameRate: { num: 30, den: 1 }, sampleRateHz: 48_000, toleranceId: 'ebu-r37', fullScaleDbu: 18, hours: 1 },
  types: [],
  devices: [
    device('backup', 'recorder-handheld', 'Backup recorder', seen({ use: 'record', 'own-mute': false })),
    device(
      'camera',
      'camera-hdmi-full',
      'Quay camera',
      seen({ 'sound-from': 'jack', overlays: 'off', 'picture-mode': '1920x1080-30', 'microphone-mute': false }),
    ),
    device('guest', 'person', 'Guest'),
    device('host', 'person', 'Host'),
    device('host-lapel', 'lapel-wired', 'Host’s lapel microphone'),
    device('guest-radio', 'radio-set-camera', 'Guest’s radio set', seen({ sides: 'both' })),
    device('monitor', 'monitor-recorder', 'Monitor-recorder', seen({ 'sound-from': 'both' })),
    device('monitor-phones', 'earphones', 'Operator’s earphones'),
  ],
  cables: [
    air('air-guest-backup', 'guest/voice', 'backup/own', 0.8),
    air('air-guest-radio', 'guest/voice', 'guest-radio/pack-1', 0.2),
    air('air-host-backup', 'host/voice', 'backup/own', 0.8),
    air('air-host-lapel', 'host/voice', 'host-lapel/capsule', 0.2),
    lead('camera-monitor', 'camera/hdmi', 'monitor/hdmi', 0.5),
    lead('guest-camera', 'guest-radio/out', 'camera/jack', 0.3),
    { ...lead('host-monitor', 'host-lapel/plug', 'monitor/microphone', 1.2), parts: [] },
    light('light-guest', 'guest/face', 'camera/lens', 2),
    light('light-host', 'host/face', 'camera/lens', 2),
    lead('monitor-ears', 'monitor/jack', 'monitor-phones/plug', 1.2),
  ],
  sources: [
    {
      id: 'host',
      name: 'Host, voice',
      letter: 'H',
      hue: 2,
      sound: ref('host/voice'),
      picture: ref('host/face'),
      level: [74, 77, 80],
    },
    {
      id: 'guest',
      name: 'Guest, voice',
      letter: 'G',
      hue: 3,
      sound: ref('guest/voice'),
      picture: ref('guest/face'),
      level: [74, 77, 80],
    },
  ],
  listeners: [
    { id: 'recording', name: 'Monitor-recorder', sound: ref('monitor/file'), picture: ref('monitor/file') },
    { id: 'backup', name: 'Backup recorder', sound: ref('backup/file') },
    { id: 'operator', name: 'Operator’s ears', sound: ref('monitor-phones/ears') },
  ],
  plan: [...must('recording', 'guest', 'host'), ...must('backup', 'guest', 'host')],
  measurements: [],
  tasks: [],
  dismissed: [],
  moments: [],
};
