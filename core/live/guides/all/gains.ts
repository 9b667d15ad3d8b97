import { type Guide, listener, source } from '../guide.ts';

export const gains: Guide = {
  id: 'gains',
  seeks: { voice: source('voice'), stream: listener('mix', 'track') },
  steps: [
    { do: 'have', of: 'voice' },
    { do: 'reach', from: 'voice', to: 'stream' },
    { do: 'clear', rules: ['gain-clips', 'level-clips', 'voice-noisy'] },
    { do: 'open', page: 'level' },
    { do: 'open', page: 'bench' },
    { do: 'proof', from: 'voice', to: 'stream' },
  ],
};
