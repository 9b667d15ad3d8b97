import { device, type Guide, listener, source } from '../guide.ts';

export const lapelMicrophone: Guide = {
  id: 'lapel-microphone',
  seeks: {
    microphone: device('microphone'),
    computer: device('computer'),
    voice: source('voice', 'second-voice'),
    out: listener('mix', 'track', 'far-ears'),
  },
  steps: [
    { do: 'have', of: 'microphone' },
    { do: 'have', of: 'computer' },
    { do: 'clear', rules: ['plug-three-in-four', 'plug-four-in-three', 'power-plug-in-missing'] },
    { do: 'reach', from: 'voice', to: 'out' },
    { do: 'open', page: 'level' },
    { do: 'proof', from: 'voice', to: 'out' },
  ],
};
