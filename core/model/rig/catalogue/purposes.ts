/**
 * What people want who look for a type and do not know its name: searched beside names, in both spellings. Data, as the
 * names are; a purpose may lead to several types.
 */
const PURPOSES: Readonly<Record<string, string>> = {
  'hear myself, listen to myself, monitor my voice, no delay':
    'interface-1 interface-2 interface-4 mixer-usb-send headphone-splitter-box microphone-usb',
  'several people listen, share headphones, more headphones': 'headphone-splitter-box headphones',
  'get hdmi sound out, audio out of hdmi, take the game sound to the mixer':
    'hdmi-extractor hdmi-switch-2-extractor hdmi-switch-3-extractor hdmi-switch-4-extractor screen-with-jack',
  'console into the computer, record a console, hdmi into usb, get the picture into the computer':
    'capture-usb-compressed capture-usb-uncompressed capture-stick capture-card capture-pass-through',
  'play while it records, see the game without delay': 'capture-pass-through hdmi-splitter hdmi-splitter-powered',
  'two consoles on one tv, choose between inputs, switch consoles':
    'hdmi-switch hdmi-switch-3 hdmi-switch-4 hdmi-matrix',
  'same picture on two screens, duplicate the picture': 'hdmi-splitter hdmi-splitter-powered hdmi-matrix',
  'get rid of hum, stop the buzz, ground loop, noise from the computer': 'isolator-line di-box usb-hub-powered',
  'guitar into the mixer, long unbalanced cable, instrument into xlr': 'di-box',
  'too loud for the input, turn a line down': 'pad',
  'talk without a cable, walk about with a mic, hands free':
    'radio-handheld radio-pack radio-set-camera microphone-head-worn radio-base',
  'several wireless mics, receive two mics': 'radio-base-2 radio-base-4 radio-base-8 radio-set-camera',
  'guest on the phone, take a phone call on air, call in listeners': 'mixer-talk phone-call guest-return tablet',
  'guest must not hear themselves, mix minus, echo for the guest':
    'mixer-talk guest-return mixer-usb-10 mixer-usb-send mixer-usb-two',
  'friend on the call, talk to people far away': 'call phone-call tablet conference-loudspeaker',
  'music from the phone, phone into the mixer': 'phone phone-usb-c bluetooth-to-line usb-c-phone-adapter',
  'bluetooth into a cable, wireless sound into the mixer': 'bluetooth-to-line bluetooth-usb-to-line',
  'two computers into one mixer, gaming pc and streaming pc, hear both computers': 'mixer-usb-two kvm',
  'more mic inputs, add inputs to the interface': 'preamp-8-optical interface-16 mixer-usb-multitrack',
  'digital link, spdif, coaxial, aes': 'interface-digital coaxial-to-line optical-to-line line-to-digital',
  'audio over the network, long distance, stage to the desk':
    'network-stage-box network-to-usb network-to-line line-to-network',
  'talk to the host without being on air, producer speaks in the headphones, cue': 'talkback-box intercom-pack',
  'one mouse and keyboard for two computers, switch computers': 'kvm',
  'sound of the tv into the mixer, optical out': 'optical-to-line coaxial-to-line hdmi-extractor',
  'one program into another, send app audio, route app sound': 'virtual-cable aggregate-device',
  'make the noise go away, clean my voice, remove the fan': 'program-filter',
  'stream, go live, broadcast': 'capture-program',
  'record tracks, multitrack, edit later':
    'mixer-usb-multitrack recording-program recorder-multitrack interface-8 interface-16',
  'backup recording, record without a computer, safety': 'recorder-handheld recorder-stereo monitor-recorder',
  'sound for a room, play to an audience, public address':
    'loudspeakers-active amplifier loudspeakers-passive audience',
  'not enough usb sockets, more usb, usb power': 'dock usb-hub usb-hub-powered usb-charger',
  'more outlets, power everything': 'power-strip power-strip-long power-bank',
  'show my face, film me': 'webcam camera-hdmi camera-hdmi-full camera-action',
  'picture without a cable, wireless video': 'picture-link-sender picture-link-receiver',
  'talk at a table, conference room': 'microphone-table-radio conference-loudspeaker mixer-matrix',
  'watch in vr, show others what i see': 'head-worn-display',
};

const byType = new Map<string, string[]>();
for (const [purpose, ids] of Object.entries(PURPOSES))
  for (const id of ids.split(' ')) byType.set(id, [...(byType.get(id) ?? []), purpose]);

/** What a built-in type is for, as people say it; an empty list where nothing is said. */
export const purposesOf = (typeId: string): readonly string[] => byType.get(typeId) ?? [];
/** Ids of types that some purpose names. */
export const typesWithPurpose = (): readonly string[] => [...byType.keys()];
