import type { DeviceType } from '#core/model/rig/schema-type.ts';
import { cameras } from './cameras.ts';
import { captures } from './capture.ts';
import { computers } from './computers.ts';
import { consoles } from './consoles.ts';
import { converters } from './converters.ts';
import { digitalLinks } from './digital-links.ts';
import { docks } from './docks.ts';
import { hdmi } from './hdmi.ts';
import { headphones } from './headphones.ts';
import { instruments } from './instruments.ts';
import { interfaces } from './interfaces.ts';
import { loudspeakers } from './loudspeakers.ts';
import { microphones } from './microphones.ts';
import { mixers } from './mixers.ts';
import { people } from './people.ts';
import { power } from './power.ts';
import { programs } from './programs.ts';
import { radioLinks } from './radio-links.ts';
import { recorders } from './recorders.ts';
import { screens } from './screens.ts';
import { talkMixers } from './talk-mixers.ts';
import { talkback } from './talkback.ts';
import { twoWay } from './two-way.ts';
import { videoMixers } from './video-mixers.ts';
import { wordsOf } from './words.ts';

/** The built-in device types: generic, data only, one file a family. */
export const catalogue: readonly DeviceType[] = [
  ...people,
  ...consoles,
  ...hdmi,
  ...captures,
  ...screens,
  ...cameras,
  ...computers,
  ...microphones,
  ...instruments,
  ...interfaces,
  ...mixers,
  ...talkMixers,
  ...videoMixers,
  ...recorders,
  ...converters,
  ...digitalLinks,
  ...headphones,
  ...loudspeakers,
  ...twoWay,
  ...talkback,
  ...radioLinks,
  ...docks,
  ...power,
  ...programs,
].map((type) => {
  const words = wordsOf(type.id);
  return words ? { ...type, words } : type;
});
