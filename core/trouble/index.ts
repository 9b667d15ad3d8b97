export { placesOf } from './places.ts';
export type { FaultSeen, Place } from './scene.ts';
