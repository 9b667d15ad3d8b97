/** Every term that a screen uses, in plain words. A term on a screen opens its entry here. */
export const TERMS = {
  'tap-test': {
    title: 'Tap test',
    says: 'Every source plays a tune of its own, all at about the same time, and every listener records one take. What a take holds tells which sources came there, how loud, how late against each other, twice or not, through which band, the right way round, and on whose clock. What it cannot tell is when a player was pressed: times stand against other sources or other takes, unless something ties them.',
  },
  tune: {
    title: 'Tune',
    says: 'Fifteen seconds of soft notes, another row for every source, made so that they are told apart when all play at once, under speech, and behind a call program. Any machine makes the same tune from its number.',
  },
  'slip-list': {
    title: 'Slip list',
    says: 'What has to be done to recordings in the edit so that they lie to each other: moved by so much, and where clocks drifted, played a little faster or slower. As a table and as a timeline (OpenTimelineIO) it is exact; an EDL knows whole frames only, the rest stands in its comments.',
  },
  spectrum: {
    title: 'Spectrum',
    says: 'What pitches a take is made of, as a mean over its time (Welch): the line bin by bin, bars in third octaves as ears sort them. Hum stands as a row of needles at 50 or 60 Hz and multiples; hiss as a floor to the right.',
  },
  treatment: {
    title: 'Try it on the take',
    says: 'Filters and dynamics on a stretch of the take itself, heard beside it at the same loudness: louder alone always sounds better. What suits can then be set on the desk, in the program, or left.',
  },
  'low-cut': {
    title: 'Low cut',
    says: 'Takes away what lies under a voice: rumble, knocks on the table, breath. 80 Hz is a usual start; a deep voice wants less, a humming room more.',
  },
  gate: {
    title: 'Gate',
    says: 'Takes down what is quiet, so that the room is heard less between sentences. It cannot help while one speaks, and eats soft endings where it is set too high. Only when the room asks for it.',
  },
  presence: {
    title: 'Presence',
    says: 'A gentle bell about 2.5 kHz, where consonants are: 2 to 3 dB make words clearer, more makes them hard.',
  },
  'de-esser': {
    title: 'De-esser',
    says: 'A shelf that shuts for a moment whenever an s is too sharp. It works on what lies above its corner, and leaves the rest.',
  },
  ducking: {
    title: 'Ducking',
    says: 'Game and music stand higher while nobody speaks, and go down when somebody begins. On the desk a ducker does it: keyed by the voices, its threshold some 10 dB under them, down within 0.2 s and back within half a second.',
  },
  compressor: {
    title: 'Compressor',
    says: 'Evens out loud and soft: over its threshold, so many dB in make one dB out. For a voice 2:1 to 4:1 with 3 to 6 dB taken off the peaks is a usual start. What lies between the words comes up with it.',
  },
  limiter: {
    title: 'Limiter',
    says: 'Keeps true peaks under a ceiling by looking a few milliseconds ahead. A few dB now and then are not heard; if it works all the time, the level before it is too high.',
  },
  'peak-to-loudness': {
    title: 'Peaks over loudness',
    says: 'How far the highest peak stands over the loudness of the whole. What is wanted loud and under a ceiling needs it small: speech as recorded has 15 to 20 dB, compressed 10 to 14.',
  },
  abx: {
    title: 'Blind trial',
    says: 'X is A or B, nobody knows which, in each round anew. Who hears a difference is right more often than a coin: the exact chance of guessing as well is told, once all rounds are over. Equal loudness first, or the louder one wins.',
  },
  balance: {
    title: 'Balance',
    says: 'How loud every source is beside the main voice, by loudness and while somebody speaks: that is when it matters. Starting points (typical): a second voice 0 to 1 LU under it, a guest 1 to 3, a game 8 to 14, music 15 to 20.',
  },
  live: {
    title: 'Setting gain by talking',
    says: 'Talk as you will later, at the distance that you will keep. Peaks belong between −12 and −6 dBFS while gain is set: louder moments come. The meter takes the input as it comes, without what the browser would do to a call.',
  },
  listening: {
    title: 'Listening level and time',
    says: 'Ears add up what they get: 3 dB more is as much in half the time. NIOSH allows 85 dBA for 8 h a day at work; WHO and ITU 80 dBA for 40 h a week for pleasure. Estimated from the rig’s typical figures.',
  },
  lufs: {
    title: 'LUFS',
    says: 'Loudness as people hear it, against digital full scale (ITU-R BS.1770-5): weighed by pitch, over 0.4 s (momentary), 3 s (short-term) or all that is not silence (integrated).',
  },
  'loudness-range': {
    title: 'Loudness range',
    says: 'How far apart the quiet and the loud parts stand, in LU (EBU Tech 3342): silence and the rarest tenth at the bottom and twentieth at the top are left out.',
  },
  'true-peak': {
    title: 'True peak',
    says: 'The highest point of the wave itself, which may lie between two samples. At most −1 dBTP, or players and codecs clip it.',
  },
  hum: {
    title: 'Hum',
    says: 'The mains in the sound: 50 or 60 Hz and multiples of it, steady in phase. It comes by rings of earths, by unbalanced leads, and from supplies. Never lift a mains earth to cure it: isolators, balanced leads, a licensed electrician.',
  },
  hiss: {
    title: 'Hiss',
    says: 'Steady noise from stages that are turned up too late, from open inputs, or from the microphone itself.',
  },
  echo: {
    title: 'Echo',
    says: 'The same sound again, later: by a second way, by a loop, or by a microphone that hears a loudspeaker. Nearer than some 30 ms it colours the sound instead.',
  },
  slate: {
    title: 'Slate',
    says: 'A picture and a sound that belong together to the millisecond: a frame number that can be read back from any take, a flash, a click and a chirp. What lies between the two afterwards was added on the way.',
  },
  bound: {
    title: 'Bound',
    says: 'The truth lies within so much of what is said, in 95 of 100 takes. Of a picture that stands still against the frames of its slate no more than a frame can be told; where the rates differ, much more.',
  },
  'listening-delay': {
    title: 'Listening delay',
    says: 'How late people hear what they act upon while it goes on: their game, their own voice, each other, music that they keep time with. No edit mends that afterwards.',
  },
  'round-trip': {
    title: 'Round trip',
    says: 'The time from a sample that a program hands out to the same sample heard again at its input: buffers, converters, safety offsets and whatever lies between, both ways together. Neither way alone can be told from it.',
  },
  'menu-clicks': {
    title: 'Clicks of a menu',
    says: 'Most consoles play no film, but their menus click as the pointer moves. The frame that first shows the change and the click that goes with it tell the same as a clap.',
  },
  'run-order': {
    title: 'Order on the day',
    says: 'What comes before what, so that nothing cracks, nothing is harmed and nothing is missed: silence first, phantom power off, picture before sound, every plug before its supply, calls after all plugs, loudspeakers last.',
  },
  'go-no-go': {
    title: 'Go or no go',
    says: 'Whether one can begin: everything that has to be was looked at and is well, or was left out with a reason. One thing that is not well, or that nobody has looked at, is no go.',
  },
  budget: {
    title: 'Budget',
    says: 'What the session takes of something that runs out: the charge of a battery, the room on a disk, what a line carries upwards, sockets and outlets. The bar is what it takes, its end what there is.',
  },
  marker: {
    title: 'Marker',
    says: 'A moment that somebody wants to find again in the recordings. It is kept by the clock of the day and told as a place in a recording that began at a known time.',
  },
  door: {
    title: 'On a phone',
    says: 'The run and the list of what is to do, on a phone or tablet of the same network. A code opens it once; without one nothing is answered. By such an address a browser withholds microphone, wake lock and more: ticks are kept there and sent, takes come from the phone’s own recorder.',
  },
  ways: {
    title: 'Alternatives (ways to build)',
    says: 'What this desk is for, built as practitioners build it: each way is drawn as a rig, its sends and switches set, and judged by the same model as your own. What is owned already costs nothing again.',
  },
  unbeaten: {
    title: 'Unbeaten',
    says: 'No other way is at least as good in every measure and better in one. Which of the unbeaten ones is best depends on what counts for you.',
  },
  watch: {
    title: 'Watch',
    says: 'An input of this computer that is metered all session: silent for ten seconds, one side only, clipping, hum, far from what is usual, gone. What is wrong stands over every view; what nobody watches is said to be unwatched.',
  },
  'same-as-last': {
    title: 'Same as last time?',
    says: 'One sentence, spoken as always, at an input that carries what one cares for: loudness, the noise in its rests, hum, tone and sides against the last session that went well. Within what the same person varies by, it is the same.',
  },
  archive: {
    title: 'Archive',
    says: 'A plain zip with the rig, its log, its takes and photographs, and a page to start with for whoever takes over. Imported on another machine it comes back byte for byte; a cut one is refused with what is missing.',
  },
  log: {
    title: 'Log',
    says: 'What happened session by session: what was done and left out, what was wrong and what it was, what was measured. It is written as the day goes on, and never changed afterwards.',
  },
  'control-chart': {
    title: 'Control chart',
    says: 'A figure day by day against what it usually is. Small differences of one direction add up; when the sum is larger than chance would make it in one of two hundred sessions, something has moved. Twenty sessions make a baseline; with fewer, what is said is provisional.',
  },
  trouble: {
    title: 'Something is wrong',
    says: 'From what is heard or seen wrong to what it is: every fault that this rig may have was run in the model, and each answer leaves those that would give it. The next look is the one that is expected to tell most for the time that it takes.',
  },
  suspect: {
    title: 'Suspect',
    says: 'A fault that this rig may have: a mute, a plug, a wrong choice, a box without power. Its share is how likely it is after all that was told: how often such a thing happens, times how well it explains every answer.',
  },
  'path-test': {
    title: 'Path test',
    says: 'One take for every way that sound and picture take, and for every delay setting that is used: together they tell what each device adds, and which takes do not fit.',
  },
  doubt: {
    title: 'Doubt',
    says: 'How far the offsets of all paths may still stand from what is said of them, squared and added. A take of one path also tells of every other that goes through the same devices.',
  },
  'follows-from': {
    title: 'What it follows from',
    says: 'Delay comes from devices that hold sound or picture back. A lead holds nothing back that could be seen: five millionths of a millisecond a metre. What neither explains, nothing in the rig does.',
  },
  'slate-skew': {
    title: 'Own skew of the player',
    says: 'The screen and the loudspeaker that show a slate are not quite at one themselves. Clap your hands beside the slate in one take: a real clap has no skew, so the difference of the two is the player’s own.',
  },
  dropout: {
    title: 'Drop-out',
    says: 'A piece that is missing, or that comes twice: a buffer that was not filled in time, a radio link, a network, two clocks that are not joined.',
  },
  'dc-offset': {
    title: 'DC offset',
    says: 'All samples stand off zero by the same amount. It takes room, clicks at cuts, and heats loudspeakers. A low cut takes it away.',
  },
  'one-sided': {
    title: 'One side',
    says: 'One side of a stereo take is much quieter than the other: a plug half out, a mono plug, a pan, the wrong channel.',
  },
  polarity: {
    title: 'Polarity',
    says: 'One side is upside down against the other. In headphones it sounds hollow; in mono the middle vanishes.',
  },
  'dual-mono': {
    title: 'Two equal sides',
    says: 'Both sides hold one and the same sound. Nothing is wrong with it, but one side is enough, and two of them read 3 LU louder.',
  },
  silent: {
    title: 'Silent',
    says: 'Nothing that could be heard was recorded: a mute, a wrong input, a send at zero, or nothing plugged.',
  },
  'gain-ladder': {
    title: 'Gain ladder',
    says: 'The level of a sound after every step of its way, with the noise under it and the ceiling over it. It shows where quality is lost: where the signal comes near the noise, or its peaks near the ceiling.',
  },
  snr: {
    title: 'Signal to noise',
    says: 'How far the signal stands over the noise of all stages together. What is lost early cannot be won back: later gain lifts both.',
  },
  headroom: {
    title: 'Headroom',
    says: 'The distance from the usual peaks to where a stage clips. While gains are set, leave 6 to 12 dB of it.',
  },
  clipping: {
    title: 'Clipping',
    says: 'A wave that is taller than a stage can pass has its tops cut flat. Turning down afterwards does not bring them back.',
  },
  'open-channel': {
    title: 'Open channel',
    says: 'An input that is open and that nobody uses still brings its own noise into the mix. Each one shut makes the floor a little lower.',
  },
  'set-the-gains': {
    title: 'Setting the gains',
    says: 'The level that is wanted, with as much gain as early as the peaks allow, since what makes noise after it counts less. Levels after that stand at their unity mark; a headphone output that feeds something at half at most.',
  },
  offset: {
    title: 'Offset',
    says: 'How much later the sound stands than its picture. Positive: the sound is late. Negative: it comes before what is seen.',
  },
  tolerance: {
    title: 'Tolerance',
    says: 'How far sound may stand from its picture before somebody minds. Standards differ by purpose; the session chooses one, and a listener may have its own.',
  },
  arrival: {
    title: 'Arrival',
    says: 'One source at one place by one way, with its level, noise and delay. A source that comes by two ways has two arrivals.',
  },
  moment: {
    title: 'Moment',
    says: 'A state of the session with a name: sending and receiving, play and break. A few mutes and switches stand otherwise in it, and something else may be wanted. What is pressed or wanted while a moment is shown belongs to that moment alone.',
  },
  'own-track': {
    title: 'Own track',
    says: 'The source is to be alone on that track, so that it can be balanced or cut afterwards. What spills in 15 dB lower does not hinder that.',
  },
  'sound-device': {
    title: 'Sound devices of a computer',
    says: 'What programs can choose as input or output. Give them names worth reading, hide what is never used, and see which one carries what. In the system’s own settings the same is done by enabling each and watching its meter. A program that has chosen none goes with the default, wherever that moves; nothing passes at one that is disabled.',
  },
  'guest-return': {
    title: 'Guest return (mix-minus)',
    says: 'What is sent back to a guest: everything but themselves. Their own voice coming back late stops most people talking. A converter that only goes one way cannot make it.',
  },
  'far-side': {
    title: 'The far side',
    says: 'Whoever is at the other end of a call, with gear of their own. A spare seat is a second device among them that joins muted and records what they hear: the only sure way to know it.',
  },
  inside: {
    title: 'Inside of a box',
    says: 'What a mixer, a program or a computer does between its inputs and outputs: which way is open, how much louder or later it comes out, and which control shuts it. A change here is heard in the table at once; nothing turns at the desk by it.',
  },
  'stand-in': {
    title: 'Stand-in',
    says: 'A made-up sound in place of the real one: a voice, a game, a jingle. It is carried through the rig as drawn, with its gains, delays, bands, noise and hum, so that one hears the way and not the programme.',
  },
  listener: {
    title: 'Listener',
    says: 'Who or what gets the result: the stream, a recording track, a guest, the player’s ears, the room.',
  },
  source: { title: 'Source', says: 'What sounds or is seen first: a game, a voice, music, a guest.' },
  typical: {
    title: 'Typical figure',
    says: 'A starting value with its range, as devices of this kind usually have. A take replaces it by a measured one.',
  },
  measured: {
    title: 'Measured figure',
    says: 'Taken from one of your takes, with its spread over the readings and the day it was taken.',
  },
  standard: {
    title: 'Standard figure',
    says: 'From a published standard or plain physics, for instance the speed of sound.',
  },
  set: {
    title: 'Setting',
    says: 'A delay that somebody has set. It is known exactly, as long as the drawing is right about it.',
  },
  drift: {
    title: 'Drift',
    says: 'Two clocks never run quite alike. So many ppm (parts in a million) move two recordings apart by 3.6 ms an hour each.',
  },
  spread: {
    title: 'Spread',
    says: 'How far single readings lie from their mean: one standard deviation. Two of them to each side hold about 95 % of readings.',
  },
  confidence: {
    title: 'Confidence',
    says: 'How likely it is that two takes hold the same sound and that it lies as told: of a hundred such with 80 %, about 80 are right. Below 50 % they are taken for different ones.',
  },
  flash: {
    title: 'Flash',
    says: 'A frame in which something lights up: the instant of the clap as the picture has it.',
  },
  clap: {
    title: 'Clap',
    says: 'A short sharp sound that is seen and heard at once: the ruler that picture and sound are laid against.',
  },
  frame: { title: 'Frame', says: 'One picture of the session’s frame rate. At 60 frames a second it lasts 16.7 ms.' },
  'as-drawn': {
    title: 'As drawn',
    says: 'What the drawing of the rig says. Nothing turns a knob by itself: what is to be done at the desk stays open until it is ticked.',
  },
  twice: {
    title: 'Heard twice',
    says: 'The same sound by two ways at two times. Close together it sounds hollow (comb filtering), further apart it is an echo.',
  },
  finding: {
    title: 'Finding',
    says: 'Something that is wrong, or doubtful, with where it is, what it rests on, and what would mend it. What rests on something assumed is asked, not claimed.',
  },
  edid: {
    title: 'EDID',
    says: 'What a screen or capture device says of itself over HDMI: its picture modes, its sound formats, its fastest link. A few hundred bytes that a computer can save.',
  },
  'noise-floor': {
    title: 'Noise floor',
    says: 'What is heard when nothing sounds: the noises of all stages before this place, together.',
  },
  'can-fail': {
    title: 'Things that can fail',
    says: 'Boxes, their supplies and batteries, programs, leads, adapters, radio links: each counts once. Told beside it: how many pairs that the plan wants have no way without it.',
  },
  'hearing-plan': {
    title: 'Hearing plan',
    says: 'For every source and listener what is wanted: must hear, must not hear, may hear. All that is checked is held against it.',
  },
  tap: { title: 'Tap', says: 'A place on the rig that one listens into, to see what arrives there.' },
} as const;

export type TermId = keyof typeof TERMS;
