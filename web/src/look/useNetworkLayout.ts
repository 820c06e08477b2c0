import { useEffect, useState } from 'react';
import type { Drawn, NetworkLayout } from './networkLayout.js';

/** Where the words of a network stand; laid out in a worker, so that the page never waits. Null until it is known. */
export function useNetworkLayout(network: Drawn | undefined): NetworkLayout | null {
  const [found, setFound] = useState<{ network: Drawn; layout: NetworkLayout } | null>(null);
  useEffect(() => {
    if (!network) return undefined;
    const worker = new Worker(new URL('./networkLayout.worker.ts', import.meta.url), {
      type: 'module',
    });
    worker.onmessage = ({ data }: MessageEvent<NetworkLayout>) =>
      setFound({ network, layout: data });
    const { words, links, topics } = network;
    worker.postMessage({ words, links, topics } satisfies Drawn);
    return () => worker.terminate();
  }, [network]);
  return found && found.network === network ? found.layout : null;
}
