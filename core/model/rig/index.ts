export {
  amplifies,
  amplifiesInstrument,
  beginsAt,
  captures,
  computerOf,
  endsBehind,
  endsThat,
  endsThatLeadTo,
  films,
  givesMicrophoneLevel,
  hearsAir,
  isCall,
  isHardware,
  isHub,
  isPerson,
  isProgram,
  isSupply,
  isTransformer,
  isWorn,
  onTwoComputers,
  records,
  runsOnBattery,
  settingFor,
  showsPicture,
  soundDeviceOf,
  soundsIntoRoom,
  usbMeets,
  usbRoleOf,
} from './capabilities.ts';
export { type Carried, carryOut, type Verb } from './carry-out.ts';
export { catalogue } from './catalogue/index.ts';
export { purposesOf, typesWithPurpose } from './catalogue/purposes.ts';
export { type Controls, controlsOf } from './controls.ts';
export {
  asDefault,
  type ChosenDevice,
  choosing,
  chosenDevice,
  defaultDevice,
  followingDefault,
  makeDefault,
  redrawn,
  relinked,
  sameEnd,
  soundDeviceName,
  soundDevicesOf,
  unsetDefault,
} from './default-device.ts';
export {
  addTasks,
  asAtDesk,
  type Change,
  drawSettings,
  dropTask,
  type LeadChange,
  leadIsSo,
  markDone,
  type SettingChange,
  tickTask,
} from './desk.ts';
export { applyEdit, Edit } from './edit.ts';
export { type EndSaid, endName, givenName, nameSocket, ownEndName, withEnd } from './ends.ts';
export { RigError, type RigErrorCode } from './errors.ts';
export { commit, type History, redo, Step, startHistory, undo } from './history.ts';
export { idFrom } from './ids.ts';
export { isKey, type PortKey, portAt, portKey, portOf, type SettingKey, settingAt, settingKey } from './keys.ts';
export { hasUnity, sayKnob, travelOf } from './knob.ts';
export {
  cableIn,
  deviceIn,
  findCable,
  findDevice,
  findListener,
  findPort,
  findSetting,
  findSource,
  findTypes,
  isSettingTask,
  listenerIn,
  portsOf,
  refuseValue,
  settingOf,
  settingsOf,
  sourceIn,
  type Types,
  unitOf,
} from './lookup.ts';
export { atMoment, differences, editInMoment, momentName, withoutIn } from './moments.ts';
export { emptyRig, parseDeviceType, parseRig, parseRigText } from './parse.ts';
export { mayMeet, type Place, placesOf } from './places.ts';
export { typeTroubles } from './references.ts';
export { sayValue } from './say.ts';
export {
  type Cable,
  type Device,
  type Dismissal,
  type LeadTask,
  type Moment,
  type Photo,
  type PlanCell,
  type PortRef,
  READY_LEVELS,
  type ReadyLevel,
  RIG_VERSION,
  type Rig,
  RigDocument,
  type Session,
  type SettingTask,
  type Task,
  ToleranceId,
} from './schema.ts';
export type { Measurement } from './schema-measurement.ts';
export {
  type DeviceType,
  type Known,
  type LevelClass,
  type PortSpec,
  type PowerKind,
  type SettingSpec,
  SettingValue,
  type Stage,
  type Way,
} from './schema-type.ts';
export { changesOf, heldTo, type Trial, tryOn } from './trial.ts';
