export { type Place, placesOf } from './places.ts';
