import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { useAddressPart, useAddressWith } from './address.js';

const tab = (isCurrent: boolean) =>
  `-mb-px border-b-2 py-1.5 ${isCurrent ? 'border-thread' : 'border-transparent text-soft hover:text-ink'}`;

/** Which of a stop's views the address asks for; the first where it is none of them. */
export function useView<Key extends string>(views: readonly { key: Key; name: string }[]): Key {
  const [asked] = useAddressPart('view');
  return (views.find(({ key }) => key === asked) ?? views[0]!).key;
}

/** The views of a stop, side by side above what one of them shows. */
export function ViewTabs<Key extends string>({
  label,
  views,
  view,
  children,
}: {
  label: string;
  views: readonly { key: Key; name: string }[];
  view: Key;
  /** What stands beside them. */
  children?: ReactNode;
}) {
  const addressWith = useAddressWith();
  return (
    <nav
      aria-label={label}
      className="flex flex-wrap items-center gap-x-6 gap-y-1 border-b border-rule px-6 pt-1.5 max-sm:gap-x-4 max-sm:px-3"
    >
      {views.map(({ key, name }) => (
        <Link
          key={key}
          to={addressWith('view', key)}
          replace
          aria-current={view === key ? 'page' : undefined}
          className={tab(view === key)}
        >
          {name}
        </Link>
      ))}
      {children}
    </nav>
  );
}

/** Another page beside the views of a stop. */
export const TabLink = ({ to, children }: { to: string; children: ReactNode }) => (
  <Link to={to} className={tab(false)}>
    {children}
  </Link>
);
