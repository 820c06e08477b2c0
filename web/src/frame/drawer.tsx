import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { createContext, useContext, useMemo, useRef, useState, type ReactNode } from 'react';
import { drawerTexts } from './texts.js';

interface DrawerContent {
  title: string;
  body: ReactNode;
}

const OpenDrawer = createContext<(content: DrawerContent | null) => void>(() => {});
const Content = createContext<DrawerContent | null>(null);

/** Opens the one drawer with something in it, in place of what was there; null closes it. */
export const useDrawer = () => useContext(OpenDrawer);

export function DrawerProvider({ children }: { children: ReactNode }) {
  const [content, setContent] = useState<DrawerContent | null>(null);
  const open = useMemo(() => setContent, []);
  return (
    <OpenDrawer.Provider value={open}>
      <Content.Provider value={content}>{children}</Content.Provider>
    </OpenDrawer.Provider>
  );
}

/** What is behind a thing, drawn in from the right; the page beside it stays in use. */
export function Drawer() {
  const content = useContext(Content);
  const setContent = useDrawer();
  const opener = useRef<Element | null>(null);
  return (
    <Dialog.Root
      modal={false}
      open={content !== null}
      onOpenChange={(open) => {
        if (!open) setContent(null);
      }}
    >
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          onInteractOutside={(event) => event.preventDefault()}
          onOpenAutoFocus={() => {
            opener.current = document.activeElement;
          }}
          onCloseAutoFocus={(event) => {
            // back to what it was opened from, which is not a trigger of this dialog's own
            event.preventDefault();
            if (opener.current instanceof HTMLElement) opener.current.focus();
          }}
          className="fixed inset-y-0 right-0 z-20 flex w-[460px] max-w-[90vw] flex-col border-l border-rule bg-card shadow-[-8px_0_24px_#0000000f]"
        >
          <header className="flex items-start justify-between gap-4 border-b border-rule px-5 py-4">
            <Dialog.Title className="text-[16px] font-semibold">{content?.title}</Dialog.Title>
            <Dialog.Close
              aria-label={drawerTexts.closeDrawer}
              className="rounded p-1 hover:bg-wash"
            >
              <X size={16} aria-hidden />
            </Dialog.Close>
          </header>
          <div
            role="region"
            aria-label={content?.title}
            tabIndex={0}
            className="min-h-0 flex-1 overflow-y-auto px-5 py-4 -outline-offset-2"
          >
            {content?.body}
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
