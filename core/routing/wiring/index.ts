export { addDevice, addDevices, nameFor } from './add.ts';
export { bestBetween, boxesBetween, fitsAmong, isMeant, isWithin, typesBeside } from './between.ts';
export {
  type Connection,
  connectionsOf,
  lostBy,
  pulledBy,
  removeConnection,
  sayEnd,
} from './connections.ts';
export type { Spoken, TypedBox, TypedLead, TypedUse } from './drawing.ts';
export {
  addFarSeat,
  addSpareSeat,
  callsOf,
  FAR_GEAR,
  type FarSeat,
  farSeats,
  setFarGear,
} from './far-side.ts';
export { startingLevels } from './levels.ts';
export { YOU } from './mentioned.ts';
export { addNamed, boxesNamed, type NamedBox, type NamedEnd } from './named.ts';
export { effectOf, type Offer, offersFor } from './offers.ts';
export { removeDevice } from './remove.ts';
export { replaceDevice } from './replace.ts';
export { freeId, joinSockets, mediumOf, type Socket, socketsOf, usualLength } from './sockets.ts';
export { readTyped, type Typed } from './typed.ts';
