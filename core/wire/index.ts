export { addDevice, nameFor, type Replaced, removeDevice, replaceDevice } from './devices.ts';
export { type Effect, effectOf, type Offer, offersFor } from './offers.ts';
export { freeId, joinSockets, mediumOf, type Socket, socketsOf, usualLength } from './sockets.ts';
export { readTyped, type Typed, type TypedBox, type TypedLead, typeFor } from './typed.ts';
