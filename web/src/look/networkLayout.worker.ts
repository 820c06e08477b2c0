import { layoutNetwork, type Drawn } from './networkLayout.js';

self.onmessage = ({ data }: MessageEvent<Drawn>) => self.postMessage(layoutNetwork(data));
