import { type Guide, listener, source } from '../guide.ts';

export const leftAndRight: Guide = {
  id: 'left-and-right',
  seeks: { voice: source('voice'), guest: source('far-voice', 'second-voice'), take: listener('mix', 'track') },
  steps: [
    { do: 'have', of: 'voice' },
    { do: 'have', of: 'guest' },
    { do: 'reach', from: 'voice', to: 'take' },
    { do: 'reach', from: 'guest', to: 'take' },
    { do: 'clear', rules: ['route-one-side'] },
    { do: 'open', page: 'route' },
    { do: 'proof', from: 'guest', to: 'take' },
  ],
};
