import { device, type Guide, listener, source } from '../guide.ts';

export const lipSync: Guide = {
  id: 'lip-sync',
  seeks: { camera: device('camera'), voice: source('voice', 'second-voice'), stream: listener('mix') },
  steps: [
    { do: 'have', of: 'camera' },
    { do: 'reach', from: 'voice', to: 'stream' },
    { do: 'open', page: 'sync' },
    { do: 'time', from: 'voice', to: 'stream' },
    { do: 'open', page: 'sync/paths' },
    { do: 'proof', from: 'voice', to: 'stream' },
  ],
};
