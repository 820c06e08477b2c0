import {
  useId,
  type InputHTMLAttributes,
  type ReactNode,
  type SelectHTMLAttributes,
  type TextareaHTMLAttributes,
} from 'react';

const box =
  'min-w-0 max-w-full rounded border border-rule bg-card px-2.5 py-1.5 text-ink placeholder:text-soft disabled:opacity-60';

/** A field that is written on a line, without a box. */
export const lineField =
  'border-b-2 border-thread bg-transparent px-1 py-0.5 outline-none placeholder:text-soft';

/** A labelled input. */
export function Field({
  label,
  hint,
  className = '',
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; hint?: string }) {
  const id = useId();
  return (
    <div className={`flex max-w-full min-w-0 flex-col gap-1 ${className}`}>
      <label htmlFor={id} className="font-medium">
        {label}
      </label>
      <input id={id} className={box} aria-describedby={hint ? `${id}-hint` : undefined} {...rest} />
      {hint && (
        <span id={`${id}-hint`} className="text-soft text-[13px]">
          {hint}
        </span>
      )}
    </div>
  );
}

/** A labelled input of several lines. */
export function TextField({
  label,
  hint,
  className = '',
  ...rest
}: TextareaHTMLAttributes<HTMLTextAreaElement> & { label: string; hint?: string }) {
  const id = useId();
  return (
    <div className="flex min-w-0 flex-col gap-1">
      <label htmlFor={id} className="font-medium">
        {label}
      </label>
      <textarea
        id={id}
        className={`${box} ${className}`}
        aria-describedby={hint ? `${id}-hint` : undefined}
        {...rest}
      />
      {hint && (
        <span id={`${id}-hint`} className="text-[13px] text-soft">
          {hint}
        </span>
      )}
    </div>
  );
}

/** A choice of one, with its label before it. */
export function Choice({
  label,
  children,
  hideLabel = false,
  className = '',
  ...rest
}: SelectHTMLAttributes<HTMLSelectElement> & {
  label: string;
  hideLabel?: boolean;
  children: ReactNode;
}) {
  const id = useId();
  return (
    <span className="inline-flex max-w-full items-center gap-2 has-[.w-full]:flex">
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'text-soft'}>
        {label}
      </label>
      <select id={id} className={`${box} ${className}`} {...rest}>
        {children}
      </select>
    </span>
  );
}

export const inputBox = box;
