import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';

const trigger =
  'inline-flex items-center gap-1.5 rounded border border-rule bg-card px-2.5 py-1 font-medium hover:border-soft';
const item =
  'flex cursor-pointer items-baseline justify-between gap-4 rounded px-3 py-1 outline-none data-[highlighted]:bg-wash';

/** A button that opens a list of things to do. */
export function Menu({
  name,
  label,
  look = trigger,
  children,
}: {
  name: ReactNode;
  /** What the button is called where its name says too little. */
  label?: string;
  look?: string;
  children: ReactNode;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger aria-label={label} className={look}>
        {name}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="end"
          className="z-30 max-h-96 w-80 overflow-y-auto rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]"
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

export const MenuTitle = ({ children }: { children: ReactNode }) => (
  <DropdownMenu.Label className="px-3 pb-1 pt-2 text-[13px] text-soft">
    {children}
  </DropdownMenu.Label>
);

export const MenuRule = () => <DropdownMenu.Separator className="my-1 h-px bg-rule" />;

/** One thing to do, with what it is about beside it. */
export const MenuItem = ({
  name,
  about,
  onSelect,
}: {
  name: string;
  about?: string;
  onSelect: () => void;
}) => (
  <DropdownMenu.Item onSelect={onSelect} className={item}>
    <Named name={name} about={about} />
  </DropdownMenu.Item>
);

/** A file to be taken; a page is shown in a tab of its own, where it can be printed. */
export const MenuFile = ({
  name,
  about,
  address,
  isPage,
}: {
  name: string;
  about: string;
  address: string;
  isPage: boolean;
}) => (
  <DropdownMenu.Item asChild>
    <a href={address} {...(isPage ? { target: '_blank' } : { download: true })} className={item}>
      <Named name={name} about={about} />
    </a>
  </DropdownMenu.Item>
);

const Named = ({ name, about }: { name: string; about: string | undefined }) => (
  <>
    <span className="font-medium">{name}</span>
    {about && <span className="text-right text-[13px] text-soft">{about}</span>}
  </>
);
