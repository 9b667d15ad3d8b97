export { addDevice, addDevices, nameFor } from './add.ts';
export {
  addFarSeat,
  addSpareSeat,
  callsOf,
  FAR_GEAR,
  type FarGear,
  type FarSeat,
  farSeats,
  setFarGear,
} from './far-side.ts';
export { addNamed, boxesNamed, type NamedBox, type NamedEnd } from './named.ts';
export { OCCASIONS, type Occasion, rigFor } from './occasions.ts';
export { type Effect, effectOf, type Offer, offersFor } from './offers.ts';
export { removeDevice } from './remove.ts';
export { type Replaced, replaceDevice } from './replace.ts';
export { freeId, joinSockets, mediumOf, type Socket, socketsOf, usualLength } from './sockets.ts';
export { bestBetween, readTyped, type Typed, type TypedBox, type TypedLead } from './typed.ts';
