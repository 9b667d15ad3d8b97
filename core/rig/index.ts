export { catalogue } from './catalogue/index.ts';
export { alreadySo, asAtDesk, dropTask, leadIsSo, type SettingChange, tickTask, toDoAtDesk } from './desk.ts';
export { type Applied, applyEdit, Edit, type Refusal } from './edit.ts';
export { RigError, type RigErrorCode } from './errors.ts';
export { commit, type History, redo, Step, type Stepped, startHistory, undo } from './history.ts';
export { findDevice, findPort, findSetting, findTypes, refuseValue, settingOf, type Types } from './lookup.ts';
export { parseDeviceType, parseRig, parseRigText } from './parse.ts';
export {
  type Aside,
  type Cable,
  type Device,
  type DeviceType,
  type Known,
  type LevelClass,
  type Measurement,
  type PlanCell,
  type PortRef,
  type PortSpec,
  RIG_VERSION,
  type Rig,
  RigDocument,
  type SettingSpec,
  SettingValue,
  type Stage,
  type Task,
  ToleranceId,
  type Way,
} from './schema.ts';
