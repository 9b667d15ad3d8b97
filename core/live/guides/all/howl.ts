import { device, type Guide, listener, source } from '../guide.ts';

export const howl: Guide = {
  id: 'howl',
  seeks: { loudspeakers: device('loudspeakers'), room: listener('room', 'ears'), voice: source('voice') },
  steps: [
    { do: 'have', of: 'loudspeakers' },
    { do: 'clear', rules: ['loop-howls', 'room-loudspeaker-close'] },
    { do: 'open', page: 'level' },
    { do: 'open', page: 'trouble' },
    { do: 'proof', from: 'voice', to: 'room' },
  ],
};
