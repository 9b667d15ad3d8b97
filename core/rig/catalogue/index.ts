import type { DeviceType } from '../schema.ts';
import { people } from './people.ts';
import { pictureChain } from './picture-chain.ts';
import { programs } from './programs.ts';
import { soundGear } from './sound-gear.ts';

/** The built-in device types: generic, data only, one file a family. */
export const catalogue: readonly DeviceType[] = [...people, ...pictureChain, ...soundGear, ...programs];
