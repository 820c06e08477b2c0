import { useEffect, useRef, useState, type ReactNode } from 'react';

/** What may be wider than the window: it scrolls sideways by itself, also by keyboard where it does. */
export function Wide({ label, children }: { label: string; children: ReactNode }) {
  const box = useRef<HTMLDivElement>(null);
  const [isWide, setIsWide] = useState(false);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setIsWide(element.scrollWidth > element.clientWidth));
    observer.observe(element);
    for (const child of element.children) observer.observe(child);
    return () => observer.disconnect();
  }, []);
  return (
    <div
      ref={box}
      className="overflow-x-auto -outline-offset-2"
      {...(isWide && { role: 'region', 'aria-label': label, tabIndex: 0 })}
    >
      {children}
    </div>
  );
}
