import { inkOn, INKS, STITCHES } from '@yellow-thread/core/codebook';
import { MoreHorizontal } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { useChangeCodebook, type DrawnTheme } from '../data/codebook.js';
import { StitchMark } from '../parts/stitch.js';
import { useDark } from '../lib/useDark.js';
import { themeHeadTexts } from './texts.js';

/** A theme's name, look and counts, and what can be done with all of it. */
export function ThemeHead({
  study,
  theme,
  place,
  themes,
  codes,
}: {
  study: number;
  theme: DrawnTheme;
  place: number;
  themes: readonly DrawnTheme[];
  codes: number;
}) {
  const { mutate: change } = useChangeCodebook(study);
  const dark = useDark();
  const [name, setName] = useState(theme.name);
  const [shown, setShown] = useState(theme.name);
  if (shown !== theme.name) {
    // renamed elsewhere, or undone
    setShown(theme.name);
    setName(theme.name);
  }
  const edit = (
    from: Partial<Pick<DrawnTheme, 'name' | 'ink' | 'stitch'>>,
    to: Partial<Pick<DrawnTheme, 'name' | 'ink' | 'stitch'>>,
    onError?: () => void,
  ) =>
    change({ do: 'editTheme', id: theme.id, edit: { from, to } }, { ...(onError && { onError }) });
  return (
    <h2 className="flex items-center gap-2 border-b border-rule pb-1">
      <StitchMark look={theme.look} />
      <input
        aria-label={themeHeadTexts.nameTheme(theme.name)}
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.target.value)}
        onBlur={() => {
          const to = name.trim();
          if (to === '' || to === theme.name) setName(theme.name);
          else edit({ name: theme.name }, { name: to }, () => setName(theme.name));
        }}
        className="w-full min-w-0 bg-transparent font-semibold"
        style={{ color: theme.look.ink }}
      />
      <span
        className="figures shrink-0 text-[13px] font-normal text-soft"
        title={themeHeadTexts.peopleCountedOnceMentions}
      >
        {theme.people} · {theme.mentions}
      </span>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          aria-label={themeHeadTexts.moreAbout(theme.name)}
          className="rounded p-1 hover:bg-wash"
        >
          <MoreHorizontal size={15} aria-hidden />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            className="z-30 w-72 rounded border border-rule bg-card p-1 shadow-[0_6px_20px_#0000001f]"
          >
            <p className="px-3 pb-1 pt-1.5 text-[13px] text-soft">{themeHeadTexts.colourCodes}</p>
            <div className="flex flex-wrap gap-1 px-3 pb-1">
              {INKS.map((ink) => (
                <DropdownMenu.Item
                  key={ink}
                  aria-label={themeHeadTexts.ink(ink)}
                  onSelect={() => edit({ ink: theme.ink }, { ink })}
                  className={`size-6 cursor-pointer rounded border-2 outline-none data-[highlighted]:border-ink ${ink === theme.ink ? 'border-thread' : 'border-transparent'}`}
                  style={{ backgroundColor: inkOn(ink, dark) }}
                />
              ))}
            </div>
            <p className="px-3 pb-1 pt-1.5 text-[13px] text-soft">{themeHeadTexts.stitch}</p>
            <div className="grid grid-cols-4 gap-1 px-3 pb-2">
              {STITCHES.map((stitch) => (
                <DropdownMenu.Item
                  key={stitch}
                  aria-label={themeHeadTexts.stitch2(stitch)}
                  onSelect={() => edit({ stitch: theme.stitch }, { stitch })}
                  className={`flex h-6 cursor-pointer items-center justify-center rounded border outline-none data-[highlighted]:border-ink ${stitch === theme.stitch ? 'border-thread' : 'border-rule'}`}
                >
                  <StitchMark look={{ ink: theme.look.ink, stitch }} width={44} />
                </DropdownMenu.Item>
              ))}
            </div>
            <Item
              disabled={place === 0}
              onSelect={() =>
                change({ do: 'moveTheme', id: theme.id, before: themes[place - 1]!.id })
              }
            >
              {themeHeadTexts.moveUp}
            </Item>
            <Item
              disabled={place === themes.length - 1}
              onSelect={() =>
                change({ do: 'moveTheme', id: theme.id, before: themes[place + 2]?.id ?? null })
              }
            >
              {themeHeadTexts.moveDown}
            </Item>
            {theme.mentions > 0 && (
              <DropdownMenu.Item asChild className={itemLook}>
                <Link to={`/studies/${study}/codebook/sort/${theme.id}`}>
                  {themeHeadTexts.sortIntoNewCodes(theme.mentions)}
                </Link>
              </DropdownMenu.Item>
            )}
            <Item onSelect={() => change({ do: 'themeToCode', id: theme.id })}>
              {themeHeadTexts.makeOneCode}
              {codes > 0 && (
                <Hint>{themeHeadTexts.takesTwoSamePlace(codes, theme.mentions, theme.people)}</Hint>
              )}
            </Item>
            <Item onSelect={() => change({ do: 'removeTheme', id: theme.id })}>
              {themeHeadTexts.removeTheme}
              {codes > 0 && <Hint>{themeHeadTexts.stayMentionsWithoutTheme(codes)}</Hint>}
            </Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
    </h2>
  );
}

/** What would be affected. */
function Hint({ children }: { children: ReactNode }) {
  return <span className="block text-[13px] text-soft">{children}</span>;
}

const itemLook =
  'block cursor-pointer rounded px-3 py-1 outline-none data-[disabled]:opacity-50 data-[highlighted]:bg-wash';

function Item({
  children,
  disabled = false,
  onSelect,
}: {
  children: ReactNode;
  disabled?: boolean;
  onSelect: () => void;
}) {
  return (
    <DropdownMenu.Item disabled={disabled} onSelect={onSelect} className={itemLook}>
      {children}
    </DropdownMenu.Item>
  );
}
