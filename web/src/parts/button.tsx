import type { ButtonHTMLAttributes } from 'react';

const looks = {
  main: 'bg-ink text-paper border-ink hover:opacity-90',
  plain: 'bg-card text-ink border-rule hover:border-soft',
  grave: 'bg-card text-brick border-brick hover:bg-wash',
  bare: 'border-transparent text-ink hover:bg-wash',
};

export interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: keyof typeof looks;
}

export function Button({ look = 'plain', className = '', type = 'button', ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      className={`inline-flex items-center gap-1.5 rounded border px-3 py-1.5 font-medium disabled:opacity-50 ${looks[look]} ${className}`}
      {...rest}
    />
  );
}
