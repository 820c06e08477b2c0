import type { ReactNode, Ref } from 'react';

/** An answer in a list that is read from top to bottom, with the thread at the one where one is. */
export function ReadRow({
  ref,
  at,
  of,
  isActive,
  onActive,
  className,
  children,
}: {
  ref: Ref<HTMLElement>;
  at: number;
  of: number;
  isActive: boolean;
  onActive: () => void;
  className: string;
  children: ReactNode;
}) {
  return (
    <article
      ref={ref}
      aria-current={isActive ? 'true' : undefined}
      aria-posinset={at + 1}
      aria-setsize={of}
      onPointerDown={onActive}
      className={`relative grid items-start gap-6 border-b border-rule px-6 py-2.5 ${isActive ? 'bg-card' : ''} ${className}`}
    >
      {isActive && <span aria-hidden className="absolute inset-y-0 left-0 w-[3px] bg-thread" />}
      {children}
    </article>
  );
}
