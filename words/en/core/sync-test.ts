import { say } from '#core/desk-tests/sync-test/sayings.ts';
import { wordingOf } from '../../said.ts';

export const paths = wordingOf(say, {
  goesThroughSameDevices:
    'goes through the same devices as {pair}, yet is {apart} ms off: nothing in the rig explains that',
  nothingOnItTakes: 'nothing on it takes time; {lead}',
  at2: '{source} at {listener}',
  gameAudioForPlayer: 'game audio for the player, typical',
  ownVoiceInHeadphones: 'own voice in headphones, rule of thumb',
  ituTGOne: 'ITU-T G.114, one way',
  playingTogetherRuleThumb: 'playing together, rule of thumb',
  fastEnoughToPlay: 'fast enough to play by',
  quickPlayerNoticesIt: 'a quick player notices it',
  tooLateToPlay: 'too late to play by: take the audio before the computer',
  likeTalkingInRoom: 'like talking in a room',
  itSoundsHollowUse: 'it sounds hollow: use direct monitoring, or take their voice out of their headphones',
  distractingForSpeakerUse:
    'distracting for the speaker: use direct monitoring, or take their voice out of their headphones',
  conversationWorksAsIn: 'conversation works as in a room',
  peopleStartTalkingOver: 'people start talking over each other: leave pauses',
  noRealConversationOne: 'no real conversation: one talks, then the other',
  theyStayInTime: 'they stay in time',
  beatDrags: 'a beat drags',
  theyCantStayIn: 'they can’t stay in time',
  theyEnterOverTwo:
    'they enter {where} over two paths. Mix the music with the voice before it, use the mix as its mic, and turn its processing off',
  theyOnlyMeetAt: 'they only meet at {where}. Combine them before it, or delay what arrives through {before}',
  isFromOtherThird: 'is {off} from the other: a third take shows which is right',
  laterThanOthersAs:
    '{off} {order, select, later {later} other {earlier}} than the others: as if {delay} had not been at {value} then',
  laterThanOthersIt:
    '{off} {order, select, later {later} other {earlier}} than the others: it was matched with the next beat',
  laterThanOthersOne:
    '{off} {order, select, later {later} other {earlier}} than the others: {frames, plural, one {one frame} other {# frames}} of the session',
  laterThanOthersIts:
    '{off} {order, select, later {later} other {earlier}} than the others: its own readings spread by {sd}',
  laterThanOthersNothing:
    '{off} {order, select, later {later} other {earlier}} than the others: nothing in the rig explains it; a device may have been restarted in between',
  delay: 'the delay of {device}',
  leadsAdd: '{count, plural, one {# cable adds} other {# cables add}} {us} µs',
  devices: '{names}; {leads}',
  withMend: '{says}: {mend}',
  musicVsVoice: 'music vs. voice',
});
