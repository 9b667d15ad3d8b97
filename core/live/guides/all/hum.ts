import { type Guide, listener, source } from '../guide.ts';

export const hum: Guide = {
  id: 'hum',
  seeks: { voice: source('voice'), stream: listener('mix', 'track') },
  steps: [
    { do: 'clear', rules: ['ground-hum-loop', 'ground-two-strips', 'ground-leakage', 'ground-isolator-misplaced'] },
    { do: 'open', page: 'bench' },
    { do: 'open', page: 'trouble' },
    { do: 'proof', from: 'voice', to: 'stream' },
  ],
};
