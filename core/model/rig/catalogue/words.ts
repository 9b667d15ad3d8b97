/**
 * What people call each type, beside the name it has here: the shortest first, both sides of the ocean. Words that say
 * how it is plugged, how many inputs it has or how it works need not stand here: they are read from the type. In
 * parentheses what fits it besides: words that may stand before or after.
 */
const WORDS: Readonly<Record<string, string>> = {
  person:
    'me, myself, vocals, lead vocals, backing vocals, vox, sing, talk, speak, narrate, singing, talking, speaking, narrating, person, people, voice, talker, presenter, host, cohost, co host, guest, singer, vocalist, player, gamer, streamer, teacher, tutor, coach, narrator, interviewer, interviewee, friend, wife, husband, partner, kid, child, panelist, panellist, moderator, caster, commentator, student, pupil, pupils, students, class, team, remote team, crew, panel, learners, attendees, participants, caller, remote guest, remote friend, co presenter, dj, drummer, guitarist, mum, dad, son, daughter, brother, sister, mate, buddy, teammate, teammates, boss, client, customer, colleague, colleagues, band, operator, director, camera operator, cameraman, producer, engineer, sound engineer, technician, stage manager, announcer, emcee, mc, pastor, priest, preacher, pianist, organist, bassist, violinist, cellist, saxophonist, musician, rapper, actor, lecturer, professor, trainer, instructor, therapist, doctor, patient, contestant, quizmaster, learner, neighbor, neighbour, roommate, sibling, girlfriend, boyfriend (remote, far, online, my, first, second, third, left, right, main, other)',
  audience:
    'audience, crowd, public, viewers, listeners, the room, the hall, congregation, spectators (live, in the room)',
  'game-console': 'console, game console, games console, gaming console (home, current, new, video)',
  'video-player':
    'video player, dvd player, blu ray player, bluray player, vhs player, vcr, video recorder, set top box, cable box, satellite box, media streamer, tv box, streaming stick, streaming box, tv stick',
  'game-console-portable':
    'handheld console, portable console, console in dock, docked console, handheld game console, console dock (hybrid)',
  'game-console-old': 'old console, retro console, last gen console, older console (classic)',
  'game-console-headset': 'console with headset, console with controller headset (game, home)',
  'hdmi-switch-2-extractor': 'hdmi switch with extractor, hdmi switch with audio, switch with audio out',
  'hdmi-switch-3': 'three way hdmi switch, 3x1 switch, hdmi switch 3x1, 3 port hdmi switch',
  'hdmi-switch-3-extractor':
    'three in hdmi switch with extractor, 3x1 switch with audio, 3x1 hdmi switch with audio out, hdmi switch with extractor, hdmi switch with audio',
  'hdmi-switch-4': 'four way hdmi switch, 4x1 switch, hdmi switch 4x1, 4 port hdmi switch',
  'hdmi-switch-4-extractor':
    'four in hdmi switch with extractor, 4x1 switch with audio, 4x1 hdmi switch with audio out, hdmi switch with extractor, hdmi switch with audio',
  'capture-pass-through':
    'capture card with pass through, pass through capture card, pass through capture, capture with passthrough, capture card with loop out, capture card with hdmi out, capture card (passthrough)',
  soundbar: 'soundbar, sound bar, tv speaker, tv soundbar',
  'phone-call':
    'phone on a call, phone with call, smartphone on a call, mobile on a call, cell phone on a call, mobile phone on a call, call phone, phone caller, telephone, guest phone (mobile, cell, smartphone)',
  'interface-16':
    'sixteen input interface, sixteen channel interface, 16 channel interface, big rack interface, interface (large)',
  'radio-base-camera':
    'camera receiver, on camera receiver, receiver for camera, portable receiver, shoe mount receiver, wireless receiver, receiver (camera, small)',
  'radio-base-2':
    'dual wireless receiver, dual receiver, two channel receiver, two channel wireless receiver, dual radio mic receiver, receiver',
  'radio-base-4':
    'four channel receiver, quad receiver, quad wireless receiver, four channel wireless receiver, receiver',
  'radio-base-8': 'eight channel receiver, eight channel wireless receiver, receiver',
  'guitar-electric': 'guitar, electric guitar, bass guitar, electric bass, bass, guitar or bass (electric)',
  'guitar-acoustic':
    'acoustic guitar, acoustic electric guitar, ukulele, acoustic, violin with pickup, electro acoustic guitar',
  keyboard:
    'keyboard, synth, synthesizer, synthesiser, digital piano, electric piano, stage piano, piano, keys, organ, keytar',
  'drum-machine': 'drum machine, sampler, groovebox, electronic drums, electronic drum kit, e drums, drum pad, pads',
  turntable: 'turntable, record player, vinyl, vinyl player, deck, decks, gramophone, record deck',
  'dj-controller': 'dj controller, dj decks, dj deck, dj setup, dj console, dj mixer with decks, controller with decks',
  'music-box': 'cd player, cd, network player, streamer box, tape deck, cassette deck, minidisc, mp3 player, media box',
  'venue-feed':
    'venue feed, house feed, feed from the desk, feed from foh, foh feed, desk feed, pa feed, feed from the house, house mixer, house desk, church desk, church mixer, line from the venue, press feed, mult box',
  'video-mixer-4':
    'video mixer, video switcher, hdmi video mixer, hdmi mixer, live switcher, production switcher, four input video switcher, vision mixer',
  'video-mixer-2': 'two input video switcher, two input video mixer, small video mixer, video mixer, video switcher',
  'video-mixer-8': 'eight input video switcher, eight input video mixer, video mixer, video switcher',
  'line-radio-sender': 'wireless audio transmitter, wireless line transmitter, audio transmitter, line transmitter',
  'line-radio-receiver': 'wireless audio receiver, wireless line receiver, audio receiver, line receiver',
  'ears-radio-sender': 'iem transmitter, in ear transmitter, wireless in ear transmitter, in ear monitor transmitter',
  'ears-radio-pack': 'iem pack, iem beltpack, in ear pack, wireless in ear pack, in ear beltpack, iem receiver',
  'button-panel':
    'button panel, button deck, button box, key panel, macro pad, macro keyboard, stream buttons, keypad, midi controller, control surface, foot pedal, footswitch, pedal',
  'preamp-microphone':
    'preamp, mic preamp, microphone preamp, tube preamp, mic pre, preamplifier, channel strip, voice processor, mic booster, inline preamp (mic, tube)',
  'processor-line':
    'compressor, equalizer, eq, limiter, reverb unit, effects unit, effects processor, sound processor, outboard, feedback suppressor',
  'plug-in-to-phantom':
    'lav to xlr adapter, lavalier adapter, lapel adapter, plug in power adapter, phantom to plug in adapter',
  'mixer-usb-multitrack-12':
    'sixteen channel mixer, 16 channel mixer, twelve mic mixer, 12 mic mixer, large multitrack mixer (multitrack, big, large, digital)',
  accessory:
    'tripod, mic stand, boom arm, mic arm, stand, ring light, key light, light, lamp, green screen, pop filter, shock mount, windscreen, mouse, gamepad, game controller, joypad, teleprompter, desk mount, chair, curtain, controller, steering wheel, racing wheel, joystick, keyboard and mouse (stand, led, softbox)',
  'phono-preamp': 'phono preamp, phono amp, phono stage, turntable preamp, riaa preamp',
  'effects-pedal':
    'effects pedal, pedalboard, pedal board, pedals, guitar pedals, stompbox, stomp box, distortion pedal, delay pedal, reverb pedal, loop pedal, looper, multi effects, guitar effects (guitar, bass)',
  'guitar-amp':
    'guitar amp, guitar amplifier, bass amp, guitar cab, guitar cabinet, combo amp, amp head, amp with a mic in front, amp',
  'instrument-acoustic':
    'drums, drum set, acoustic drums, cajon, saxophone, sax, trumpet, violin, fiddle, cello, flute, clarinet, grand piano, upright piano, accordion, harp, banjo, mandolin, percussion, choir, brass, string quartet, acoustic instrument',
  'hdmi-splitter': 'hdmi splitter, splitter, hdmi distribution amp, video splitter (1x2, one to two, cheap)',
  'hdmi-splitter-powered':
    'powered splitter, powered hdmi splitter, active splitter, splitter with power (own supply, mains)',
  'hdmi-y-lead': 'hdmi y cable, hdmi y lead, hdmi y splitter, y splitter hdmi, hdmi tee',
  'hdmi-switch': 'hdmi switch, hdmi switcher, hdmi selector, switch box, input selector, video switch (2x1)',
  'hdmi-switch-splitter': 'switch splitter, hdmi switch with two outputs, hdmi switch splitter, bi direction switch',
  'video-scaler':
    'scaler, upscaler, video scaler, hdmi scaler, line doubler, video converter, hdmi converter, downscaler (retro, picture)',
  'hdmi-matrix': 'hdmi matrix, matrix switch, video matrix, 2x2 matrix',
  'hdmi-extractor':
    'extractor, hdmi audio extractor, audio extractor, hdmi extractor, hdmi deembedder, hdmi de embedder, audio de embedder, hdmi breakout, sound extractor',
  'capture-usb-compressed':
    'capture card, capture device, capture, capture box, hdmi capture, video capture, grabber, frame grabber, game capture, cap card (external, hd)',
  'capture-usb-uncompressed':
    'uncompressed capture, usb 3 capture, capture card usb 3, low latency capture, 4k capture, capture card (fast)',
  'capture-stick':
    'capture stick, capture dongle, hdmi dongle, hdmi stick, hdmi to usb, hdmi to usb dongle, cheap capture',
  'capture-card': 'internal capture card, pcie capture, pci capture card (inside, built in, pcie)',
  'screen-with-jack':
    'monitor, screen, display, gaming monitor, computer monitor, pc monitor, external monitor (second, main, with headphone jack, with audio out, hdmi, external, preview)',
  screen: 'screen without audio, monitor without audio, monitor without speakers, plain monitor, display without jack',
  television: 'tv, television, telly, tv set, big screen, smart tv, flat screen (living room, crt, old, led, lcd)',
  projector: 'projector, beamer, video projector',
  'monitor-recorder':
    'monitor recorder, field monitor, recording monitor, camera monitor recorder, external recorder hdmi',
  'screen-loudspeakers':
    'monitor with speakers, screen with speakers, display with speakers, monitor with built in speakers',
  'camera-hdmi':
    'camera, cam, mirrorless, dslr, mirrorless camera, video camera, camcorder (hdmi, main, face, mini hdmi)',
  'camera-hdmi-full':
    'camera with full size hdmi, cinema camera, big camera, full hdmi camera, camera with mic jack, camera, dslr, mirrorless camera, camcorder, video camera',
  'camera-hdmi-micro': 'micro hdmi camera, camera micro hdmi, small mirrorless',
  'camera-action': 'action cam, action camera, sports camera, helmet cam',
  webcam:
    'webcam, web cam, web camera, usb camera, document camera, visualizer, visualiser, conference camera, facecam, face cam, usb webcam',
  'picture-link-sender': 'wireless video transmitter, video transmitter, wireless hdmi transmitter, video tx',
  'picture-link-receiver': 'wireless video receiver, video receiver, wireless hdmi receiver, video rx',
  'computer-desktop':
    'computer, pc, desktop, gaming pc, streaming pc, stream pc, tower, desktop computer, desktop pc, workstation, machine (main, second, my)',
  'computer-laptop': 'laptop, notebook, laptop computer, notebook computer, gaming laptop, work laptop, club laptop',
  phone: 'phone, smartphone, mobile, mobile phone, cell phone, cellphone, cell, phone with headphone jack (my, old)',
  'phone-usb-c': 'phone without jack, phone usb c, new phone, phone without headphone jack',
  tablet: 'tablet, pad, tab',
  'microphone-dynamic':
    'mic, microphone, dynamic mic, xlr mic, vocal mic, stage mic, handheld mic, hand mic, broadcast mic, podcast mic, moving coil mic, mike (dynamic, xlr, vocal, wired, moving coil, stage, cardioid, kick, snare, tom, amp, instrument, pulpit, lectern, booth, host, guest, announcer)',
  'microphone-condenser':
    'condenser, condenser mic, large diaphragm condenser, small diaphragm condenser, studio mic, ldc, sdc, overhead mic, overhead, hi hat mic, boundary mic, table mic, gooseneck, gooseneck mic, pulpit mic, lectern mic, piano mic, audience mic, crowd mic, shotgun, shotgun mic, choir mic, room mic, boom mic (condenser, xlr, studio, cardioid, phantom)',
  'microphone-ribbon': 'ribbon, ribbon mic, ribbon microphone',
  'lapel-wired':
    'lav, lavalier, lav mic, lapel, lapel mic, lavalier mic, clip on mic, tie mic, tie clip mic (wired, clip on)',
  'lapel-phone': 'phone lav, lav for phone, smartphone lav, trrs lav, lavalier for phone, lapel mic for phone',
  'microphone-camera-top':
    'on camera mic, camera mic, shotgun for camera, camera top mic, video mic, camera shotgun, on camera shotgun',
  'microphone-head-worn': 'headworn mic, head worn mic, headset mic, earset, head mic, ear worn mic (for beltpack)',
  'microphone-usb':
    'usb mic, usb microphone, usb condenser, podcast usb mic, desk mic (usb, streaming, condenser, dynamic)',
  'lapel-usb': 'usb lav, usb lapel mic, usb lavalier, usb clip on mic',
  'radio-pack':
    'beltpack, belt pack, bodypack, body pack, wireless pack, wireless transmitter, radio pack, transmitter pack',
  'radio-plug-on':
    'plug on transmitter, plug on, xlr transmitter, wireless xlr transmitter, plug on wireless transmitter',
  'radio-handheld':
    'wireless mic, wireless handheld, wireless handheld mic, radio mic, handheld wireless, cordless mic, wireless microphone, radio microphone (handheld, wireless, radio, vocal)',
  'radio-base':
    'receiver, wireless receiver, radio receiver, mic receiver, wireless mic receiver, radio mic receiver, receiver for wireless mic',
  'radio-set-camera':
    'wireless lav kit, wireless lav set, wireless lavalier set, dual wireless mics, wireless lavs, wireless lav, wireless lavalier, wireless clip on mics, two wireless lavs, wireless kit, wireless system, wireless set (dual, set, kit, system, 2.4ghz, 2.4, ghz, digital)',
  'microphone-table-radio': 'wireless table mics, wireless table mic, wireless boundary mics, conference mics wireless',
  'interface-1': 'solo interface, one channel interface, single input interface, interface (small, single, little)',
  'interface-2':
    'interface, audio interface, sound card, external sound card, usb sound card, usb interface, soundcard, usb audio interface, audio box, sound interface (usb, small, two channel, stereo, external)',
  'interface-4':
    'four channel interface, quad interface, bigger interface, audio interface with four inputs, interface',
  'interface-8':
    'eight channel interface, eight input interface, rack interface, big interface, 8 preamp interface, interface (big, large)',
  'mixer-usb-10':
    'digital mixer, digital desk, digital mixing desk, digital console mixer, rack mixer, streaming mixer, mixer with sends (digital, usb, big, ten channel)',
  'mixer-talk':
    'podcast mixer, podcasting mixer, podcast desk, podcast console, podcast recorder, podcast production mixer, talk mixer, talk show mixer, mixer with mix minus, mix minus mixer, mixer with bluetooth, mixer with phone input, mixer with four headphone outputs, broadcast mixer, radio mixer (four mic, podcast)',
  'mixer-usb-multitrack':
    'multitrack mixer, multitrack usb mixer, usb multitrack mixer, mixer with multitrack usb, multichannel mixer, twelve channel mixer, 12 channel mixer, eight mic mixer, mixer with direct outs over usb (multitrack, big, large)',
  'mixer-usb-two':
    'dual usb mixer, mixer with two usb, two usb mixer, dual pc mixer, two pc mixer, mixer for two computers, mixer for two pcs, mixer with dual usb (dual)',
  'mixer-analogue':
    'analog mixer, analogue mixer, analogue desk, field mixer, location mixer, small mixer without usb, plain mixer (analog, small, without usb)',
  'mixer-usb-send':
    'mixer, mixing desk, usb mixer, dj mixer, dj mixer with usb, sound desk, sound board, soundboard, mixing board, mixing console, audio mixer, desk mixer (usb, analog, small, little, compact, four channel, with usb)',
  'mixer-matrix': 'matrix mixer, matrix, dsp matrix, conference dsp, audio matrix, zone mixer, install mixer',
  'guest-return': 'mix minus box, guest return, mix minus, mixminus, n 1 box',
  'recorder-stereo':
    'recorder, stereo recorder, line recorder, two track recorder, audio recorder, card recorder, sd recorder, sd card recorder (stereo, rack, sd, card)',
  'recorder-handheld':
    'handheld recorder, field recorder, pocket recorder, portable recorder, hand recorder, dictaphone, digital recorder, stereo recorder, recorder, audio recorder',
  'recorder-multitrack': 'multitrack recorder, multitrack, eight track recorder, multi track recorder',
  'usb-to-line': 'usb dac, dac, usb headphone dongle, usb audio adapter, usb to aux, usb to jack (cheap)',
  'line-to-usb': 'line to usb, rca to usb, usb line in, usb audio grabber, aux to usb',
  'usb-c-phone-adapter':
    'usb c dongle, headphone dongle, usb c to headphone, usb c adapter, phone dongle, usb c to jack',
  'bluetooth-to-line': 'bluetooth receiver, bt receiver, bluetooth to aux, bluetooth adapter, bluetooth to line',
  'bluetooth-usb-to-line':
    'bluetooth and usb receiver, bluetooth dac, usb and bluetooth dac, bluetooth usb dac, bluetooth and usb to line (bluetooth, usb)',
  'line-to-bluetooth': 'bluetooth transmitter, bt transmitter, aux to bluetooth, line to bluetooth',
  'optical-to-line':
    'optical dac, optical converter, toslink converter, optical to analog, optical to rca, spdif dac, optical to aux, toslink dac',
  'coaxial-to-line':
    'coaxial converter, coax dac, coaxial dac, coaxial to analog, coax to analog, coaxial to rca (digital)',
  'line-to-digital':
    'analog to optical, analog to digital converter, line to optical, rca to optical, analog to coaxial, line to spdif (digital)',
  'coaxial-to-optical': 'coaxial to optical, coax to optical',
  'optical-to-coaxial': 'optical to coaxial, optical to coax',
  'preamp-8-optical':
    'eight channel preamp, 8 channel preamp, eight channel mic preamp, preamp with optical out, eight channel optical preamp, mic preamp rack',
  'interface-digital':
    'interface with digital inputs, interface with spdif, interface with optical in, digital interface, interface with aes, audio interface with digital inputs, interface with coaxial (digital)',
  'network-stage-box':
    'stage box, stagebox, digital stage box, digital snake, network stage box, audio over ip stage box, network snake, networked stage box (network, digital)',
  'network-to-line':
    'network audio output, network to line, audio over ip output, network audio receiver, networked audio output (network)',
  'line-to-network':
    'network audio input, line to network, audio over ip input, network audio sender, networked audio input (network)',
  'network-to-usb': 'network audio to usb, audio over ip to usb, network audio adapter, network to usb (network)',
  'talkback-box':
    'talkback, talkback mic, talkback box, talkback microphone, talk key, producer mic, cue mic (producer)',
  'intercom-pack':
    'intercom, intercom pack, intercom beltpack, wireless intercom, comms pack, comms headset pack, party line pack, cue system (wireless)',
  'isolator-line':
    'isolator, ground loop isolator, audio isolator, hum eliminator, isolation transformer, line isolator, hum killer',
  pad: 'pad, attenuator, inline pad, line to mic pad',
  'di-box':
    'di, di box, direct box, dibox, direct injection box, passive di, di with ground lift, di box with ground lift (ground, lift, bass, guitar, keyboard, active, passive)',
  'headphone-splitter-box':
    'headphone amp, headphone amplifier, headphone splitter, headphone distribution amp, headphone distributor, hp amp (four way)',
  'headset-usb':
    'headset, usb headset, gaming headset, gaming headphones with mic, headset with mic (gaming, usb, my, wired)',
  'headset-bluetooth':
    'bluetooth headset, bt headset, bluetooth earbuds, earbuds, bluetooth headphones, wireless earbuds, bt headphones',
  'headset-radio':
    'headset with dongle, headset with usb dongle, headset with usb stick, wireless headset, wireless gaming headset, 2.4 ghz headset, dongle headset, cordless headset, headset with dongle',
  'headset-four-contact':
    'wired headset, jack headset, analog headset, trrs headset, headset with one plug, headset 3.5 mm, phone headset',
  'headset-two-plug': 'two plug headset, headset with two plugs, pc headset, headset two jacks, split headset',
  'headset-xlr':
    'xlr headset, broadcast headset, sports headset, commentator headset, headset with xlr (broadcast, sports, commentary, xlr)',
  headphones:
    'headphones, headphone, cans, wired headphones, studio headphones, closed headphones, monitoring headphones (closed, open, back, over, ear, studio, monitoring)',
  earphones: 'earphones, in ears, in ear, in ear monitors, iem, iems, buds, wired earbuds, earpiece',
  'head-worn-display': 'vr headset, head mounted display, vr, vr goggles, hmd, vr glasses',
  'loudspeakers-active':
    'speakers, studio monitors, active speakers, powered speakers, nearfields, pa, pa speakers, main speakers, loudspeakers, foh, stage speakers, stage monitors, wedge, wedges, floor monitors, stage monitor, monitor speakers, monitors (active, pa, pair of, xlr)',
  'loudspeakers-desk': 'desk speakers, desktop speakers, pc speakers, computer speakers, small speakers',
  'loudspeakers-passive': 'passive speakers, hifi speakers, bookshelf speakers, passive loudspeakers',
  'loudspeaker-bluetooth': 'bluetooth speaker, bt speaker, portable speaker, wireless speaker, boombox',
  amplifier: 'amp, amplifier, power amp, hifi amp, receiver amp, stereo amp, poweramp',
  'conference-loudspeaker':
    'speakerphone, conference speaker, conference puck, meeting speaker, speaker phone, conference phone, conference mic, conference microphone, meeting mic, table speakerphone, conference unit',
  'two-way-radio':
    'base station radio, desk radio, two way radio, mobile radio, transceiver, ham radio, amateur radio, cb radio, vhf radio',
  'two-way-handheld':
    'walkie talkie, walkie, handheld radio, two way handheld, handie talkie, ht, handy talky, portable two way radio',
  'keying-box': 'keying box, ptt box, push to talk box, radio selector',
  'headset-two-radios': 'dual radio headset, two radio headset, dual comm headset',
  'usb-hub': 'usb hub, hub, unpowered hub, bus powered hub',
  'usb-hub-powered': 'powered hub, powered usb hub, usb hub with power',
  dock: 'dock, docking station, usb c dock, laptop dock, usb dock (usb c, laptop)',
  kvm: 'kvm, kvm switch, kvm switcher, keyboard and screen switch, switch between two computers (hdmi, usb)',
  'power-strip':
    'power strip, outlet strip, extension lead, multi plug, multiplug, surge protector, power bar, power board',
  'power-strip-long': 'long power strip, twelve way strip, rack power strip, big power strip',
  'usb-charger': 'usb charger, charger, usb power supply, wall charger, wall wart',
  'power-bank': 'power bank, powerbank, battery pack, usb battery',
  'game-program': 'game, pc game, computer game, the game, video game, game on the pc, my game',
  'sound-system': 'system mixer, computer audio, system audio, os mixer, system sound',
  'capture-program':
    'streaming app, streaming software, stream software, streaming program, capture software, capture program, broadcast software, stream, the stream, live stream, livestream, encoder, livestream encoder, stream encoder, streaming encoder, switcher software, streaming',
  call: 'call, video call, voice chat, chat, voice call, chat app, meeting, conference call, online meeting, group call, call app, video meeting, voip, webinar, video conference, virtual meeting, online lesson, video lesson, online class, virtual class, remote lesson, video chat',
  'virtual-cable':
    'virtual cable, virtual audio cable, virtual audio device, loopback device, loopback, virtual device, audio cable software',
  'aggregate-device': 'aggregate device, aggregate, combined device',
  'recording-program':
    'recording app, recording software, recording program, daw, audio editor, multitrack software, recorder app, recording, recorder',
  'music-player':
    'music, music player, music app, dj software, dj app, dj program, music software, jukebox, media player, background music, playlist, soundboard app, jingles, bgm, music program, backing track, backing tracks, playback tracks, playback app',
  'program-filter':
    'noise filter, noise suppression, voice filter, noise removal, voice changer, plugin, noise gate app, mic filter, amp sim, amp simulator, guitar plugin, effects plugin',
};

/** So many words that may stand beside are told together. */
const IN_GROUP = 8;

/** 'a, b (c)' as the names, and what may stand beside them. */
export function wordsOf(typeId: string): string[] | undefined {
  const text = WORDS[typeId];
  if (!text) return undefined;
  const [, names, beside = ''] = /^(.*?)(?: \((.*)\))?$/.exec(text)!;
  const fits = beside.split(', ').filter(Boolean);
  const groups = fits.flatMap((_, i) => (i % IN_GROUP === 0 ? [`(${fits.slice(i, i + IN_GROUP).join(', ')})`] : []));
  return [...names!.split(', '), ...groups];
}
