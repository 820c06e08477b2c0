import { useId } from 'react';

/** A knot of the thread, filled from below as its part of the job is done. */
export function ProgressKnot({ share, size = 18 }: { share: number; size?: number }) {
  const clip = useId();
  const top = 15 - 12 * Math.min(1, Math.max(0, share)); // inside the ring
  return (
    <svg aria-hidden width={size} height={size} viewBox="0 0 18 18" className="block shrink-0">
      <clipPath id={clip}>
        <rect x="0" y={top} width="18" height="18" />
      </clipPath>
      <circle cx="9" cy="9" r="7" className="fill-paper" />
      <circle cx="9" cy="9" r="7" className="fill-thread" clipPath={`url(#${clip})`} />
      <circle cx="9" cy="9" r="7" fill="none" className="stroke-thread" strokeWidth="2" />
    </svg>
  );
}

export type KnotState = 'open' | 'accepted' | 'refused';
const words: Record<KnotState, string> = {
  open: 'open',
  accepted: 'accepted',
  refused: 'refused',
};

/** Where a decision stands: hollow is open, filled is accepted or settled, struck is refused. */
export function Knot({ state, label }: { state: KnotState; label?: string }) {
  return (
    <svg
      role="img"
      aria-label={label ?? words[state]}
      width="14"
      height="14"
      viewBox="0 0 14 14"
      className="block shrink-0"
    >
      <circle
        cx="7"
        cy="7"
        r="4.5"
        className={state === 'accepted' ? 'fill-ink stroke-ink' : 'fill-none stroke-soft'}
        strokeWidth="1.5"
      />
      {state === 'refused' && (
        <path d="M1.5 12.5 12.5 1.5" className="stroke-ink" strokeWidth="1.5" />
      )}
    </svg>
  );
}
