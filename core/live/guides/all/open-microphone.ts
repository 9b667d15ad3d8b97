import { type Guide, listener, source } from '../guide.ts';

export const openMicrophone: Guide = {
  id: 'open-microphone',
  seeks: { voice: source('voice'), stream: listener('mix') },
  steps: [
    { do: 'clear', rules: ['room-camera-microphone', 'room-two-microphones', 'room-poorer-microphone'] },
    { do: 'open', page: 'route' },
    { do: 'open', page: 'tap' },
    { do: 'proof', from: 'voice', to: 'stream' },
  ],
};
