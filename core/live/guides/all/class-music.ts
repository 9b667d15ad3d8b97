import { type Guide, listener, source } from '../guide.ts';

export const classMusic: Guide = {
  id: 'class-music',
  seeks: { music: source('music'), voice: source('voice'), class: listener('far-ears', 'mix') },
  steps: [
    { do: 'have', of: 'music' },
    { do: 'reach', from: 'music', to: 'class' },
    { do: 'reach', from: 'voice', to: 'class' },
    { do: 'clear', rules: ['call-processes-music'] },
    { do: 'time', from: 'music', to: 'class' },
    { do: 'open', page: 'tap' },
    { do: 'proof', from: 'music', to: 'class' },
  ],
};
