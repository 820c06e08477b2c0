import { useEffect, useReducer } from 'react';
import { z } from 'zod';

const pilesSchema = z.object({
  piles: z.array(z.object({ id: z.string(), name: z.string() })),
  /** The pile of each mention that is on one. */
  pileOf: z.record(z.string(), z.string()),
});
export type Piles = z.infer<typeof pilesSchema>;

export type PileAction =
  | { do: 'add'; pile: Piles['piles'][number] }
  | { do: 'put'; mention: string; pile: string | null }
  | { do: 'rename'; pile: string; name: string }
  | { do: 'remove'; pile: string }
  | { do: 'forget' };

const none: Piles = { piles: [], pileOf: {} };

/** Piles as they are being made; kept in the browser until they become codes, so that one can come back. */
export function usePiles(of: string): [Piles, (deed: PileAction) => void] {
  const key = `yellow-thread piles ${of}`;
  const [piles, change] = useReducer(changed, key, read);
  useEffect(() => {
    if (piles.piles.length === 0) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify(piles));
  }, [key, piles]);
  return [piles, change];
}

function read(key: string): Piles {
  try {
    return pilesSchema.parse(JSON.parse(localStorage.getItem(key) ?? ''));
  } catch {
    return none;
  }
}

function changed(before: Piles, deed: PileAction): Piles {
  const { piles, pileOf } = before;
  switch (deed.do) {
    case 'add':
      return { ...before, piles: [...piles, deed.pile] };
    case 'put': {
      const others = Object.fromEntries(
        Object.entries(pileOf).filter(([mention]) => mention !== deed.mention),
      );
      return { piles, pileOf: deed.pile ? { ...others, [deed.mention]: deed.pile } : others };
    }
    case 'rename':
      return {
        ...before,
        piles: piles.map((pile) => (pile.id === deed.pile ? { ...pile, name: deed.name } : pile)),
      };
    case 'remove':
      return {
        piles: piles.filter((pile) => pile.id !== deed.pile),
        pileOf: Object.fromEntries(Object.entries(pileOf).filter(([, pile]) => pile !== deed.pile)),
      };
    case 'forget':
      return none;
  }
}
