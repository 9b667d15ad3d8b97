import { message } from '../message.ts';

/**
 * A term in plain words.
 * @param names  what else it is called, separated by commas: a search for any of them finds it
 */
const term = (title: string, says: string, names = '') => ({
  title: message(title),
  says: message(says),
  names: message(names),
});

/** Every term that a screen uses, and those that are looked for under other names. */
export const glossary = {
  'tap-test': term(
    'Tap test',
    'Every source plays its own test tune at about the same time; every destination records one take. Each take shows which sources arrived, how loud, how late, doubled or not, with which bandwidth, polarity and clock. It can’t show when Play was pressed.',
    'routing test, line check, who hears whom',
  ),
  tune: term(
    'Test tune',
    'Fifteen seconds of soft notes, different for each source. It’s designed to be recognized even when all play at once, under speech, or through a call app.',
    'tune, test tone, test signal',
  ),
  'slip-list': term(
    'Slip list (edit list)',
    'How to line up recordings in the edit: how far to move each one and, where clocks drifted, how much to change its speed. Exact as CSV and OpenTimelineIO; an EDL rounds to whole frames and puts the rest in comments.',
    'edit list, EDL, OTIO, sync in post',
  ),
  spectrum: term(
    'Spectrum',
    'Average level by frequency over the take (Welch): line = every bin, bars = third octaves. Hum shows as spikes at 50 or 60 Hz and multiples; hiss as a raised floor on the right.',
    'frequency analysis, FFT, RTA',
  ),
  treatment: term(
    'Try processing',
    'Filters and dynamics on a stretch of your take, heard next to it at the same loudness: louder alone always sounds better. What works can then be set on a device or in an app.',
    'EQ, equalizer, effects, voice processing, filters',
  ),
  'low-cut': term(
    'Low cut',
    'Removes what is below a voice: rumble, knocks on the table, breath. 80 Hz is a typical start. A deep voice needs less, a humming room more.',
    'high-pass filter, HPF, rumble filter',
  ),
  gate: term(
    'Gate',
    'Turns down quiet passages, so you hear less of the room between sentences. It can’t help while someone talks, and set too high it cuts off word endings. Use it only in a noisy room.',
    'noise gate, expander',
  ),
  presence: term(
    'Presence',
    'A gentle boost around 2.5 kHz, where consonants are: 2 to 3 dB make words clearer, more makes them harsh.',
    'EQ, clarity, bell',
  ),
  'de-esser': term(
    'De-esser',
    'Briefly turns down the highs when an “s” is too sharp. It only affects sound above its frequency.',
    'sibilance',
  ),
  ducking: term(
    'Ducking',
    'Game and music are louder while no one talks and go down when someone starts. A ducker does it, keyed by the voices: threshold about 10 dB below them, attack under 0.2 s, release about 0.5 s.',
    'ride, sidechain, auto-duck',
  ),
  compressor: term(
    'Compressor',
    'Evens out loud and soft. Above the threshold, the ratio sets how many dB in give 1 dB out. For voice, start at 2:1 to 4:1 with 3 to 6 dB of gain reduction on peaks. Background noise rises with it.',
    'compression, dynamics, leveler',
  ),
  limiter: term(
    'Limiter',
    'Keeps true peaks below a ceiling by looking a few milliseconds ahead. A few dB now and then can’t be heard; if it works all the time, the level before it is too high.',
    'brickwall, ceiling',
  ),
  'peak-to-loudness': term(
    'Peak-to-loudness ratio',
    'How far the highest peak is above the overall loudness. Raw speech: 15 to 20 dB; compressed: 10 to 14. To be loud under a ceiling, it must be small.',
    'PLR, crest factor',
  ),
  abx: term(
    'Blind trial',
    'X is secretly A or B, chosen again each round. If you really hear a difference, you beat a coin toss. After the last round you get the exact odds of doing as well by guessing. Both are matched in loudness, or the louder one would win.',
    'ABX, listening test, double-blind',
  ),
  balance: term(
    'Mix',
    'How loud each source is next to the main voice, while someone talks: that is when it matters. Typical starting points below it: second voice 0–1 LU, guest 1–3, game 8–14, music 15–20.',
    'balance, level balance, mixdown',
  ),
  live: term(
    'Set gain by talking',
    'Talk the way you will on air, at the distance you will keep. Aim for peaks between −12 and −6 dBFS: louder moments will come. The meter reads the input without the processing a browser adds to calls.',
    'mic check, sound check, input meter',
  ),
  listening: term(
    'Listening level and time',
    'Sound exposure adds up: +3 dB halves the time allowed. NIOSH: 85 dBA for 8 h a day at work. WHO/ITU: 80 dBA for 40 h a week for leisure. Estimated from typical figures.',
    'hearing, exposure, dose, headphone level',
  ),
  lufs: term(
    'LUFS',
    'Loudness as people hear it, relative to digital full scale (ITU-R BS.1770-5). Weighted by frequency, over 0.4 s (momentary), 3 s (short-term) or everything that isn’t silence (integrated).',
    'loudness, LKFS, LU',
  ),
  'loudness-range': term(
    'Loudness range (LRA)',
    'How far apart quiet and loud parts are, in LU (EBU Tech 3342). The quietest tenth and the loudest twentieth are left out.',
    'range, dynamic range',
  ),
  'true-peak': term(
    'True peak',
    'The highest point of the wave itself, which may be between two samples. Keep it at −1 dBTP or less, or players and codecs clip it.',
    'dBTP, inter-sample peak',
  ),
  hum: term(
    'Hum',
    'Power-line hum: 50 or 60 Hz and multiples, steady in phase. Caused by ground loops, unbalanced cables and power supplies. Never defeat a safety ground to cure it: use isolators, balanced cables, or a licensed electrician.',
    'buzz, mains hum, 50 Hz, 60 Hz, ground loop',
  ),
  hiss: term(
    'Hiss',
    'Steady noise from gain applied too late in the chain, from open inputs, or from the mic itself.',
    'noise, white noise, self-noise',
  ),
  echo: term(
    'Echo',
    'The same sound again, later: by a second path, a loop, or a mic that hears a speaker. Closer than about 30 ms it colors the sound instead.',
    'delay, slapback, double',
  ),
  slate: term(
    'Sync slate',
    'A picture and a sound that belong together to the millisecond: a readable frame number, a flash, a click and a chirp. What is between the two afterward was added on the path.',
    'clapper, clapperboard, sync test video, flash and beep',
  ),
  bound: term(
    'Maximum error (95%)',
    'The true value is within this much of the figure in 95 of 100 takes. If the camera’s frames stay locked to the slate’s, it can’t be narrower than one frame; if the rates differ, it’s much narrower.',
    'bound, confidence interval, margin of error',
  ),
  'listening-delay': term(
    'Monitoring latency',
    'How late people hear things they react to live: their game, their own voice, each other, a beat. Editing can’t fix this afterward.',
    'latency, lag, monitoring delay, listening delay',
  ),
  'round-trip': term(
    'Round-trip latency',
    'The time from an app sending audio out to getting it back at its input: buffers, converters and everything in between. It can’t be split into out and in.',
    'round trip, RTL, loopback latency',
  ),
  'menu-clicks': term(
    'Menu clicks',
    'Most consoles play no video files, but their menus click as the pointer moves. The frame that first shows the change and its click work like a clap.',
    'UI sounds, console lip sync',
  ),
  'run-order': term(
    'Setup order',
    'The order to plug in and switch on, so nothing pops, breaks or gets forgotten. Volumes down, phantom off, video before audio, cables before power, calls after all cables, speakers last.',
    'power-up sequence, checklist, order on the day',
  ),
  'go-no-go': term(
    'Go or no go',
    'Whether you can start: every required check passed or was skipped with a reason. One failed or open check means no go.',
    'ready, preflight',
  ),
  budget: term(
    'Resource',
    'How much of a limited resource this session uses: battery, disk space, upload bandwidth, USB ports, power outlets. The bar is what you use; its end is what you have.',
    'budget, battery life, disk space, bandwidth',
  ),
  marker: term(
    'Marker',
    'A moment you want to find again in the recordings. It’s stored by the clock and shown as a place in a recording that started at a known time.',
    'chapter, cue, timestamp',
  ),
  door: term(
    'On a phone',
    'The checklist on a phone or tablet on your network. Each code works once. Because the address isn’t secure, the browser blocks the mic and keep-awake there. Ticks are saved and sent; takes come from the phone’s own recorder.',
    'pairing, remote, second screen, QR code',
  ),
  ways: term(
    'Alternatives',
    'Other setups that could meet your plan, as practitioners build them. Each is drawn as a rig, its sends and switches set, and checked with the same model as your own. Gear you own costs nothing.',
    'ways to build, options, other setups',
  ),
  unbeaten: term(
    'Best trade-off',
    'No other alternative is at least as good in every figure and better in one. Which of them is best depends on what matters to you.',
    'unbeaten, Pareto',
  ),
  watch: term(
    'Watch',
    'An input metered for the whole session. Warns of 10 s of silence, one side only, clipping, hum, an unusual level or a lost device, on every page. Destinations without a watch are listed.',
    'monitor, alarm, silence detector',
  ),
  'same-as-last': term(
    'Same as last time?',
    'One sentence in your normal voice, at an input that matters. Loudness, background noise, hum, tone and sides are compared with the last good session. Within your own normal variation, it counts as the same.',
    'reference recording, regression check',
  ),
  archive: term(
    'Archive',
    'A plain zip with the rig, its log, its takes and photos, and a start page for the next person. Imported on another computer it comes back byte for byte; an incomplete one is refused with what is missing.',
    'backup, export, zip',
  ),
  log: term(
    'Log',
    'What happened in each session: what was done and skipped, what went wrong and why, what was measured. It’s written as the session goes on, and never changed afterward.',
    'history, journal, sessions',
  ),
  'control-chart': term(
    'Control chart',
    'A figure over time against its normal value. Small shifts in one direction add up (CUSUM). When the total is larger than chance would give in 1 of 200 sessions, something has changed. With fewer than 20 sessions the result is provisional.',
    'trend, CUSUM, statistics',
  ),
  trouble: term(
    'Troubleshoot',
    'Finds the cause of what you hear or see. Every possible fault of this rig has been simulated; each answer rules some out. The next check is the one expected to tell most for the time it takes.',
    'diagnose, fault finding, something is wrong, no sound',
  ),
  suspect: term(
    'Suspect',
    'A fault this rig may have: a mute, a plug, a wrong selection, a device without power. Its share is how likely it is after all your answers: how often it happens, times how well it explains them.',
    'cause, likelihood, probability',
  ),
  'path-test': term(
    'Sync test',
    'One take for each path that audio and video take, and for each delay setting in use. Together they show what each device adds, and which takes don’t fit.',
    'path test, lip-sync test, A/V sync test',
  ),
  doubt: term(
    'Uncertainty',
    'Total remaining uncertainty of all path offsets (sum of squares). Measuring one path also narrows others that share its devices.',
    'doubt, variance, error',
  ),
  'follows-from': term(
    'What it is based on',
    'Delay comes from devices, not cables: a cable adds 0.000005 ms per meter. If devices don’t explain it, nothing in the rig does.',
    'evidence, explanation',
  ),
  'slate-skew': term(
    'Player’s own A/V offset',
    'The display and the speaker that play a sync slate aren’t in perfect sync themselves. Clap next to the slate in one take: a real clap has no offset, so the difference is the player’s own.',
    'own skew of the player, display lag, TV lag',
  ),
  dropout: term(
    'Dropout',
    'A piece of audio that is missing or repeated: a buffer not filled in time, a wireless link, a network, two clocks that aren’t synced.',
    'drop-out, glitch, crackle, stutter, lost buffer',
  ),
  'dc-offset': term(
    'DC offset',
    'All samples are shifted off zero by the same amount. It wastes headroom, clicks at edits and heats speakers. A low cut removes it.',
    'bias, asymmetry',
  ),
  'one-sided': term(
    'One side only',
    'One side of a stereo take is much quieter than the other: a plug half out, a mono plug, a pan, the wrong channel.',
    'left only, right only, one ear, mono',
  ),
  polarity: term(
    'Polarity',
    'One side is inverted against the other. In headphones it sounds hollow; in mono the center vanishes.',
    'phase, inverted, upside down, out of phase',
  ),
  'dual-mono': term(
    'Dual mono',
    'Both sides hold the same sound. Nothing is wrong with it, but one side is enough, and two of them read 3 LU louder.',
    'two equal sides, mono on both sides',
  ),
  silent: term(
    'Silent',
    'Nothing audible was recorded: a mute, a wrong input, a send at zero, or nothing plugged in.',
    'no sound, no signal, empty track',
  ),
  'gain-ladder': term(
    'Gain staging',
    'The level after every stage of the path, with the noise floor below and the clip point above. It shows where quality is lost: too close to the noise, or peaks too close to clipping.',
    'gain ladder, gain structure, levels',
  ),
  snr: term(
    'Signal-to-noise (SNR)',
    'How far the signal is above the noise of all stages together. What is lost early can’t be won back: later gain raises both.',
    'S/N, noise, distance to the noise',
  ),
  headroom: term(
    'Headroom',
    'The distance from typical peaks to where a stage clips. While you set gain, leave 6 to 12 dB of it.',
    'room over the peaks, margin',
  ),
  clipping: term(
    'Clipping',
    'A wave that is taller than a stage can pass has its tops cut flat. Turning down afterward does not bring them back.',
    'distortion, overload, red light, peaking',
  ),
  'open-channel': term(
    'Open but unused input',
    'An input that is open but not used still adds its own noise to the mix. Muting it lowers the noise floor a little.',
    'open channel, open mic, unused input',
  ),
  'set-the-gains': term(
    'Suggested gain settings',
    'Your target level with as much gain as early as peaks allow, so later noise matters less. After that, everything at unity; a headphone output used as a line feed no higher than half.',
    'set the gains, gain, trim, preamp',
  ),
  offset: term(
    'A/V offset',
    'How much later the audio is than its video. Positive: the audio is late. Negative: it comes before what you see.',
    'offset, lip sync, out of sync, audio delay',
  ),
  tolerance: term(
    'Lip-sync tolerance',
    'How far audio may be from its video before people notice or a standard forbids it. Choose one for the session; a destination can have its own.',
    'tolerance, EBU R 37, ITU-R BT.1359, ATSC IS-191',
  ),
  arrival: term(
    'Timing',
    'One source at one destination over one path, with its level, noise and delay. A source that takes two paths arrives twice.',
    'arrival, arrivals, latency',
  ),
  moment: term(
    'Moment',
    'A named state of the session, such as live, break or Q&A. A few mutes and switches differ in it, and so may the plan. Changes you make while a moment is selected affect only that moment.',
    'break, live, state, snapshot',
  ),
  'own-track': term(
    'Own track',
    'The source must be alone on that track, so you can mix or cut it later. Spill at least 15 dB lower is fine.',
    'isolated track, ISO, multitrack, stem',
  ),
  'sound-device': term(
    'Audio devices of a computer',
    'What apps can select as input or output. Give them readable names, hide what is never used, and see which one carries what. An app set to the default follows it wherever it moves. Nothing passes through a disabled device.',
    'sound devices, sound card, input and output, default device',
  ),
  'guest-return': term(
    'Mix-minus (guest return)',
    'The mix sent back to a guest: everything except their own voice. Hearing yourself late makes it almost impossible to talk. A one-way converter can’t provide it.',
    'guest return, N-1, clean feed, return feed, own voice back',
  ),
  'far-side': term(
    'Remote guests',
    'People at the other end of a call, with gear of their own. A test device on the call is a second device that joins muted and records what they hear: the only sure way to know.',
    'far side, far end, caller, spare seat, remote',
  ),
  inside: term(
    'Inside of a device',
    'What a mixer, an app or a computer does between its inputs and outputs. It shows which path is open, how much louder or later it comes out, and which control mutes it. Changes here don’t turn anything at the desk.',
    'routing, matrix, internal routing',
  ),
  'stand-in': term(
    'Simulated source',
    'A simulated sound: voice, game, jingle. It passes through the rig as drawn, with its gains, delays, bandwidth, noise and hum, so you hear what the path does.',
    'stand-in, simulation, test signal',
  ),
  listener: term(
    'Destination',
    'Where audio ends up: the stream, a recording track, a guest’s or player’s headphones, the room.',
    'listener, output, sink, audience',
  ),
  source: term('Source', 'Where audio or video starts: a game, a voice, music, a guest.', 'input, origin'),
  typical: term(
    'Typical figure',
    'A starting value with its range, as devices of this kind usually have. A take replaces it with a measured one.',
    'usual, estimate, rule of thumb',
  ),
  measured: term(
    'Measured figure',
    'From one of your takes, with its spread over the readings and the day it was measured.',
    'reading, calibration',
  ),
  standard: term(
    'Standard figure',
    'From a published standard or plain physics, for instance the speed of sound.',
    'norm, specification',
  ),
  set: term('Setting', 'A delay you have set. It’s exact, as long as the drawing is right.', 'configured, adjusted'),
  drift: term(
    'Drift',
    'No two clocks run at exactly the same speed. Each ppm (part per million) moves two recordings apart by 3.6 ms an hour.',
    'clock drift, ppm, sample rate mismatch, word clock',
  ),
  spread: term(
    'Spread (±1 SD)',
    'How far single readings are from their mean: one standard deviation. Two of them to each side hold about 95% of readings.',
    'standard deviation, variance',
  ),
  confidence: term(
    'Confidence',
    'How likely it is that two takes hold the same sound and line up as shown. Of a hundred results with 80%, about 80 are right. Below 50% they are treated as different.',
    'probability, certainty',
  ),
  flash: term('Flash', 'A frame in which something lights up: the instant of the clap in the video.', 'light, strobe'),
  clap: term(
    'Clap',
    'A short sharp sound that is seen and heard at once: the ruler that audio and video are compared with.',
    'hand clap, clapper',
  ),
  frame: term('Frame', 'A single image of the video. At 60 frames per second it lasts 16.7 ms.', 'fps, frame rate'),
  ready: term(
    'Ready',
    'What has to be so before you go live. Drawn: nothing is wrong on paper. Confirmed: someone looked at everything that matters, and the to-do list is empty. Measured: takes show levels and delays. Rehearsed: a session went well with the rig as it is. You choose how far in Next steps.',
    'readiness, go live, checklist, how far',
  ),
  'as-drawn': term(
    'As drawn',
    'What the drawing says. Mellow Tap can’t turn your knobs: anything on the to-do list stays open until you tick it.',
    'drawing, model, assumed',
  ),
  twice: term(
    'Arrives twice (doubled)',
    'The same sound by two paths at two times. Close together it sounds hollow (comb filtering), further apart it’s an echo.',
    'doubled, second path, comb filter, flanging, phasing, hollow',
  ),
  finding: term(
    'Issue',
    'A problem or a doubt: where it is, what it’s based on, and how to fix it. If it depends on something assumed, you get a question, not a claim.',
    'finding, problem, warning, error',
  ),
  edid: term(
    'EDID',
    'What a display or capture card reports about itself over HDMI: video modes, audio formats, its fastest link. A few hundred bytes that a computer can save.',
    'display data, handshake, HDMI modes',
  ),
  'noise-floor': term(
    'Noise floor',
    'What remains when nothing plays: the noise of all stages before this point, together.',
    'background noise, self-noise, room tone',
  ),
  'can-fail': term(
    'Points of failure',
    'Devices, power supplies, batteries, apps, cables, adapters and wireless links, each counted once. Beside it: how many required connections would be lost.',
    'single point of failure, redundancy, backup',
  ),
  'hearing-plan': term(
    'Requirements',
    'For each source and destination: must arrive, must not arrive, may arrive. Everything is checked against it.',
    'hearing plan, wants, plan, routing matrix',
  ),
  tap: term('Tap point', 'A point in the rig where you look at or listen to the signal.', 'tap, probe, listen point'),
  cable: term(
    'Cable',
    'What connects two sockets. Every one has a longest length that works, and a shorter one that is advised.',
    'lead, cord, wire',
  ),
  ground: term(
    'Ground',
    'The common reference of audio and power. A safety ground (earth) protects people: never defeat it. A ground lift on a DI box only parts the audio ground, and is safe.',
    'earth, earthing, grounding, ground lift',
  ),
  'ground-loop': term(
    'Ground loop',
    'Two devices are connected by an unbalanced cable and also by their power grounds. Current in that loop hums. An isolator in the cable, one power strip for all, or battery power opens it.',
    'ring of earths, earth loop, hum loop',
  ),
  'ac-power': term(
    'AC power',
    'Power from the wall. Its wiring and its safety ground (earth) are for a licensed electrician; local rules come first.',
    'mains, wall power, outlet, power strip',
  ),
  balanced: term(
    'Balanced and unbalanced',
    'A balanced cable has two signal wires and a shield, and rejects hum. An unbalanced one has one wire and a shield: keep it short.',
    'XLR, TRS, shield, screen of a cable',
  ),
  'three-pole': term(
    'TRS and TRRS plugs',
    'A 3-pole plug (TRS) carries stereo, or one balanced signal. A 4-pole plug (TRRS) carries stereo and a mic. The wrong one shorts the mic to ground.',
    'three-contact plug, four-contact plug, headset plug, 3.5 mm, headphone jack',
  ),
  phantom: term(
    'Phantom power',
    '48 V that a mic input sends to a condenser mic. Fader down before you switch it; never into the output of another device, or an old ribbon mic.',
    '48 V, P48, condenser power',
  ),
  'audio-interface': term(
    'Audio interface',
    'A device with mic and line inputs and outputs that a computer uses over USB. It has its own clock and its own latency.',
    'sound interface, sound card, USB interface',
  ),
  'capture-card': term(
    'Capture card',
    'Takes HDMI into a computer, as a USB device or inside it. It adds delay to video and audio, and its audio can drift from other devices.',
    'capture device, frame grabber, HDMI input',
  ),
  extractor: term(
    'HDMI audio extractor',
    'Takes the audio out of an HDMI signal and offers it as an analog or optical output, while the video passes through.',
    'sound extractor, de-embedder',
  ),
  'virtual-cable': term(
    'Virtual cable',
    'An audio device that exists only in software: what one app plays into it, another app can record.',
    'virtual audio device, loopback device',
  ),
  'combined-device': term(
    'Combined device',
    'Several audio devices used as one. One of them is the clock source; the others are resampled to it, or they drift apart.',
    'aggregate, multi-device, clock source, resampling',
  ),
  loopback: term(
    'Loopback monitoring',
    'An input is passed on to an output inside the computer. It’s heard later than direct monitoring, by the computer’s latency.',
    'listened through, monitor through, software monitoring',
  ),
  'direct-monitoring': term(
    'Direct monitoring',
    'An input is heard straight from the audio interface or mixer, before the computer, with no delay worth mentioning.',
    'inputs heard directly, zero latency, sidetone',
  ),
  feedback: term(
    'Feedback',
    'Sound that returns to its own start louder than it left: it howls. A little quieter, it rings. Turn speakers down, then break the loop.',
    'howl, howling, ringing, loop, squeal',
  ),
  latency: term(
    'Latency',
    'The delay that a device or path adds. Only differences matter for lip sync; all of it matters for what people hear live.',
    'delay, lag, buffer',
  ),
  'lip-sync': term(
    'Lip sync',
    'Sound vs. picture: whether speech matches the lips. Delay the earlier of the two; nothing can make the later one earlier.',
    'A/V sync, audio delay, sync offset, video delay',
  ),
  fader: term(
    'Pre-fader and post-fader',
    'A pre-fader send is independent of the main mix; a post-fader send follows the fader. For a mix-minus, use pre-fader.',
    'aux, send, before the fader, after the fader',
  ),
  unity: term(
    'Unity (0 dB)',
    'A control that neither raises nor lowers the level. Set gain at the first stage; leave the others at unity.',
    'unity mark, 0 dB, nominal',
  ),
  channel: term(
    'Channel (strip)',
    'One input of a mixer with its own gain, send, mute and fader.',
    'strip, mixer channel, input strip',
  ),
  hdcp: term(
    'Copy protection (HDCP)',
    'Encrypts HDMI between player and display. A capture card shows black while it’s on. Most consoles can turn it off for games.',
    'black screen, protection, no video',
  ),
  wireless: term(
    'Wireless link',
    'Audio by radio from a transmitter to a receiver. Range shrinks among people; batteries run down; two on one channel disturb each other.',
    'radio link, radio mic, antenna, aerial, two-way radio',
  ),
  lavalier: term(
    'Lavalier (lapel) mic',
    'A small mic clipped to clothing. It keeps its distance when people move, and hears rustle.',
    'lapel microphone, clip-on mic, tie mic',
  ),
  'dynamic-mic': term(
    'Dynamic mic',
    'A mic with a moving coil. It’s robust, needs no phantom power, and needs more gain close up than a condenser.',
    'moving coil microphone, broadcast mic',
  ),
  upload: term(
    'Upload bandwidth',
    'What your line can send. A stream needs about twice its bit rate to be safe; a cable is better than Wi-Fi.',
    'line upwards, bit rate, internet speed, Ethernet',
  ),
  rig: term('Rig', 'Your whole setup, drawn: devices, apps, cables, settings, plan.', 'desk, setup, drawing, studio'),
  take: term(
    'Take',
    'A short test recording. What is measured in it replaces typical figures.',
    'recording, clip, file',
  ),
  template: term(
    'Template',
    'A ready rig for a common job, with its plan, to start from.',
    'occasion, preset, example',
  ),
  'certainty-drawn': term(
    'Assumed, confirmed, to do',
    'Assumed: drawn, but not checked. Confirmed: someone checked it at the desk. To do: drawn as it will be, and still open on the to-do list.',
    'seen, looked at, already done, add to-do',
  ),
  proven: term(
    'Proven',
    'An exhaustive search showed that nothing is better. Without it, a result is the best that was found.',
    'optimal, best',
  ),
  'unknown-device': term(
    'Unknown device',
    'A device of which only the sockets are known. It carries signals, with no promise about level or delay.',
    'sealed box, black box, custom device',
  ),
  'dual-pc': term(
    'Two computers',
    'One computer plays, the other streams. Audio gets across by HDMI, a cable, or the network; watch for the same sound arriving twice.',
    'dual PC, two PC, second computer',
  ),
} as const;

export type TermId = keyof typeof glossary;
