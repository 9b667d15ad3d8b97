import { type Guide, listener, source } from '../guide.ts';

export const trackEach: Guide = {
  id: 'track-each',
  seeks: {
    voice: source('voice'),
    other: source('second-voice', 'far-voice'),
    track: listener('track', 'mix'),
    second: listener('track'),
  },
  steps: [
    { do: 'have', of: 'voice' },
    { do: 'have', of: 'second' },
    { do: 'alone', from: 'voice', to: 'track' },
    { do: 'alone', from: 'other', to: 'second' },
    { do: 'open', page: 'bench' },
    { do: 'proof', from: 'voice', to: 'track' },
  ],
};
