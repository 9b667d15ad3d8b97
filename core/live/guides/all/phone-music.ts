import { type Guide, listener, source } from '../guide.ts';

export const phoneMusic: Guide = {
  id: 'phone-music',
  seeks: { music: source('music'), stream: listener('mix'), ears: listener('ears') },
  steps: [
    { do: 'have', of: 'music' },
    { do: 'reach', from: 'music', to: 'stream' },
    { do: 'once', from: 'music', to: 'stream' },
    {
      do: 'clear',
      rules: ['balance-masked', 'level-into-microphone', 'level-headphones-on-line', 'plug-needs-adapter'],
    },
    { do: 'proof', from: 'music', to: 'stream' },
  ],
};
