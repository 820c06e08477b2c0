/** How far long work is: the thread, drawn as far as it has come. */
export function ProgressLine({ label, share }: { label: string; share: number | null }) {
  const percent = share === null ? undefined : Math.round(100 * Math.min(1, Math.max(0, share)));
  return (
    <span className="flex min-w-0 flex-1 flex-col gap-1">
      <span className="figures text-soft">
        {label}
        {percent === undefined ? ' …' : `, ${percent}%`}
      </span>
      <span
        role="progressbar"
        aria-label={label}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={percent}
        className="block h-[3px] rounded bg-rule"
      >
        <span className="block h-full rounded bg-thread" style={{ width: `${percent ?? 5}%` }} />
      </span>
    </span>
  );
}
