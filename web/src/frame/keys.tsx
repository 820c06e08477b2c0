import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useState,
  type ReactNode,
} from 'react';
import { useDrawer } from './drawer.js';
import { isTyping } from './typing.js';
import { keysTexts } from './texts.js';

/** A key of the screen one is on, and what it does. */
export interface KeyHelp {
  keys: string;
  does: string;
}

interface ScreenKeys {
  here: readonly KeyHelp[];
  setHere: (keys: readonly KeyHelp[]) => void;
}
const Keys = createContext<ScreenKeys>({ here: [], setHere: () => {} });

const everywhere: KeyHelp[] = [
  { keys: keysTexts.ctrlK, does: keysTexts.goAnyStopQuestion },
  { keys: keysTexts.ctrlZ, does: keysTexts.undoLastChange },
  { keys: keysTexts.ctrlShiftZ, does: keysTexts.again },
  { keys: keysTexts.esc, does: keysTexts.closeDrawer },
  { keys: '?', does: keysTexts.keys },
];

export function KeysProvider({ children }: { children: ReactNode }) {
  const [here, setHere] = useState<readonly KeyHelp[]>([]);
  const value = useMemo(() => ({ here, setHere }), [here]);
  return <Keys.Provider value={value}>{children}</Keys.Provider>;
}

/** Tells the help which keys the present screen has. */
export function useKeyHelp(keys: readonly KeyHelp[]): void {
  const { setHere } = useContext(Keys);
  useEffect(() => {
    setHere(keys);
    return () => setHere([]);
  }, [setHere, keys]);
}

/** Opens the drawer with the keys of the screen. */
export function useShowKeys(): () => void {
  const { here } = useContext(Keys);
  const openDrawer = useDrawer();
  return useCallback(
    () =>
      openDrawer({
        title: keysTexts.keys2,
        body: (
          <>
            {here.length > 0 && <KeyList title={keysTexts.here} keys={here} />}
            <KeyList title={keysTexts.everywhere} keys={everywhere} />
          </>
        ),
      }),
    [here, openDrawer],
  );
}

/** Listens for `?` wherever nothing is being typed. */
export function ShowKeys() {
  const showKeys = useShowKeys();
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== '?' || isTyping(event.target)) return;
      event.preventDefault();
      showKeys();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [showKeys]);
  return null;
}

function KeyList({ title, keys }: { title: string; keys: readonly KeyHelp[] }) {
  return (
    <section className="mb-6">
      <h2 className="mb-2">{title}</h2>
      <dl className="grid grid-cols-[max-content_1fr] gap-x-4 gap-y-2">
        {keys.map(({ keys: names, does }) => (
          <div key={names} className="contents">
            <dt>
              <kbd>{names}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
