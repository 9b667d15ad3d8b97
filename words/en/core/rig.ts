import { say } from '#core/model/rig/sayings.ts';
import { wordingOf } from '../../said.ts';

export const rig = wordingOf(say, {
  thereIsNoDevice: 'there is no device {device}.',
  thereIsNoMoment: 'there is no moment {moment}.',
  cellNamesAnotherPair: 'the cell names another pair than the edit.',
  thereIsNoTo: 'there is no {id} to remove.',
  fullyDown: 'fully down',
  atUnityDb: 'at unity (0 dB)',
  atAboutItsRange: 'at about {percent}% of its range',
  about: 'about {travel}',
  isOnOrOff: '{setting} is on or off',
  hasPositions: '{setting} has the positions {names}',
  needsNumber: '{setting} needs a number of {unit}',
  goesFromTo: '{setting} goes from {min} to {max} {unit}',
  changesInSteps: '{setting} changes in steps of {step} {unit}',
  asSet: 'As set',
  thisFileIsNested: 'This file is nested more than {most} levels deep, so it isn’t a valid rig. Export the rig again.',
  nameIsNotAllowed: 'The name {key} is not allowed in a rig. Remove it and import again.',
  thisIsNotRig: 'This is not a rig: it has no schemaVersion. Choose a file that was exported as a rig.',
  thisRigFileIs:
    'This rig file is version {version}; this app reads up to version {newest}. Update Mellow Tap and open it again.',
  notValidJsonChoose: 'Not valid JSON. Choose a rig exported as JSON.',
  documentSays: '{why}; the document says {value}.',
  duplicateIdChangeOne: 'duplicate id {id}. Change one of them.',
  isInputOtherInput:
    '{device}, {port} is {is, select, in {an input} out {an output} other {inside the device}}. {direction, select, in {An input} other {An output}} is needed here.',
  pairIsThereTwice: 'the pair {pair} is there twice. Remove one.',
  isThereTwiceIn: '{key} is there twice in {name}. Remove one.',
  says: '{why}; {name} says {value}.',
  isNotSettingChoose: '{setting} is not a {does} setting. Choose another one.',
  on: 'on',
  off: 'off',
  idRule: 'an id may use lowercase letters, digits and hyphens (max 64)',
  nameRule: 'a name needs at least one letter',
  rangeRule: 'a range is low, nominal, high',
  videoModeRule: 'a video mode looks like 1920x1080@60',
  placeRule: 'a place is port.channel',
  edidRule: 'an EDID is one to eight blocks of 128 bytes, in hex',
  letterRule: 'one capital letter or digit',
  noSuch:
    'there is no {what, select, type {device type} other {{what}}} {id}. Correct the id, or remove what points to it.',
  noSuchOf:
    'there is no {what, select, socket {socket {id} on} channel {channel {id} on} other {setting {id} of}} {of}. Correct the id, or remove what points to it.',
  atPath: '{path}: {problem}',
  correctPlace: '{problem}. Correct this place and import the rig again.',
  sentence: '{says}.',
});
