import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ReactNode,
  type RefObject,
} from 'react';
import { useDrawer } from './drawer.js';
import { keysTexts } from './texts.js';

/** A key of the screen one is on, and what it does. */
export interface KeyHelp {
  keys: string;
  does: string;
}

/** What can be done on the screen one is on, for the palette. */
export interface ScreenAction extends KeyHelp {
  id: string;
  run: () => void;
}

interface ScreenKeys {
  here: readonly KeyHelp[];
  setHere: (keys: readonly KeyHelp[]) => void;
  /** Asked when the palette opens: what can be done follows from all that is drawn. */
  actionsRef: RefObject<() => readonly ScreenAction[]>;
}
const none = () => [];
const Keys = createContext<ScreenKeys>({
  here: [],
  setHere: () => {},
  actionsRef: { current: none },
});

export function KeysProvider({ children }: { children: ReactNode }) {
  const [here, setHere] = useState<readonly KeyHelp[]>([]);
  const actionsRef = useRef<() => readonly ScreenAction[]>(none);
  const value = useMemo(() => ({ here, setHere, actionsRef }), [here]);
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

/** Tells the palette what can be done on the present screen. */
export function useScreenActions(actions: () => readonly ScreenAction[]): void {
  const { actionsRef } = useContext(Keys);
  useEffect(() => {
    actionsRef.current = actions;
    return () => {
      if (actionsRef.current === actions) actionsRef.current = none;
    };
  });
}

/** What can be done on the present screen. */
export const useScreenActionsNow = (): RefObject<() => readonly ScreenAction[]> =>
  useContext(Keys).actionsRef;

/** Opens the drawer with the keys of the screen, and those that do the same on every screen. */
export function useShowKeys(everywhere: readonly KeyHelp[]): () => void {
  const { here } = useContext(Keys);
  const openDrawer = useDrawer();
  return useCallback(
    () =>
      openDrawer({
        title: keysTexts.keys,
        body: (
          <>
            {here.length > 0 && <KeyList title={keysTexts.here} keys={here} />}
            <KeyList title={keysTexts.everywhere} keys={everywhere} />
          </>
        ),
      }),
    [here, everywhere, openDrawer],
  );
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
