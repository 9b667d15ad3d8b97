import { device, type Guide, listener, source } from '../guide.ts';

export const twoChannels: Guide = {
  id: 'two-channels',
  seeks: {
    call: device('call'),
    voice: source('voice'),
    other: source('second-voice', 'music'),
    far: listener('far-ears'),
  },
  steps: [
    { do: 'have', of: 'call' },
    { do: 'reach', from: 'voice', to: 'far' },
    { do: 'reach', from: 'other', to: 'far' },
    { do: 'clear', rules: ['route-first-pair', 'route-one-side'] },
    { do: 'open', page: 'route' },
    { do: 'proof', from: 'other', to: 'far' },
  ],
};
