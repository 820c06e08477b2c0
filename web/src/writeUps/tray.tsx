import type { StudyDetail, WriteUp, WriteUpContent } from '@yellow-thread/contract';
import type { Editor, JSONContent } from '@tiptap/react';
import { useState } from 'react';
import { useDrawnCodebook } from '../data/codebook.js';
import { pictureAddress } from '../data/writeUps.js';
import { StitchMark } from '../parts/stitch.js';
import { trayTexts } from './texts.js';

type Settings = Omit<WriteUpContent, 'body'>;

/** What can be put into the text: tables, charts, and quotes by theme; and how those who are quoted are named. */
export function Tray({
  study,
  writeUp,
  settings,
  onChange,
  editor,
}: {
  study: StudyDetail;
  writeUp: WriteUp;
  settings: Settings;
  onChange: (change: Partial<Settings>) => void;
  /** Null where nothing can be written. */
  editor: Editor | null;
}) {
  const insert = (content: JSONContent) => editor?.chain().focus().insertContent(content).run();
  return (
    <aside aria-label={trayTexts.tablesQuotes} className="min-h-0 overflow-y-auto px-5 py-4">
      {writeUp.counted.length > 0 && (
        <>
          <h2>{trayTexts.tables}</h2>
          <ul className="mb-5">
            {writeUp.counted.map((table) => (
              <li key={table.id} className="border-b border-rule py-1.5">
                <span className="block font-medium">{table.label}</span>
                <span className="block text-[13px] text-soft">
                  {table.facts
                    .filter(([name]) =>
                      [
                        trayTexts.counts,
                        trayTexts.columns,
                        trayTexts.percent,
                        trayTexts.restricted,
                      ].includes(name),
                    )
                    .map(([name, value]) => `${name.toLowerCase()}: ${value.replace(/\.$/u, '')}`)
                    .join('; ')}
                </span>
                {editor && (
                  <PutOrTake
                    onPut={() => insert({ type: 'tableSlot', attrs: { table: table.id } })}
                    onTake={() =>
                      onChange({ tables: settings.tables.filter(({ id }) => id !== table.id) })
                    }
                  />
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      {settings.pictures.length > 0 && (
        <>
          <h2>{trayTexts.charts}</h2>
          <ul className="mb-5">
            {settings.pictures.map((picture) => (
              <li key={picture.id} className="border-b border-rule py-1.5">
                <img
                  src={pictureAddress(study.id, picture.id)}
                  alt={picture.alt}
                  className="max-h-24 max-w-full border border-rule bg-white"
                />
                {editor && (
                  <PutOrTake
                    onPut={() => insert({ type: 'pictureSlot', attrs: { picture: picture.id } })}
                    onTake={() =>
                      onChange({
                        pictures: settings.pictures.filter(({ id }) => id !== picture.id),
                      })
                    }
                  />
                )}
              </li>
            ))}
          </ul>
        </>
      )}
      <h2>{trayTexts.quotes}</h2>
      {editor && <Naming study={study} settings={settings} onChange={onChange} />}
      <Quotes study={study} writeUp={writeUp} editor={editor} />
    </aside>
  );
}

const PutOrTake = ({ onPut, onTake }: { onPut: () => void; onTake: () => void }) => (
  <span className="flex gap-3 text-[13px]">
    <button type="button" className="underline" onClick={onPut}>
      {trayTexts.putIntoText}
    </button>
    <button type="button" className="underline" onClick={onTake}>
      {trayTexts.takeOutWriteUp}
    </button>
  </span>
);

function Naming({
  study,
  settings,
  onChange,
}: {
  study: StudyDetail;
  settings: Settings;
  onChange: (change: Partial<Settings>) => void;
}) {
  const [names, setNames] = useState(settings.names.join(', '));
  return (
    <fieldset className="mb-3 border-b border-rule pb-3 text-[13px]">
      <legend className="text-soft">{trayTexts.behindQuoteStands}</legend>
      <span className="mt-1 flex flex-wrap gap-x-4">
        {study.variables.map(({ id, name }) => (
          <label key={id} className="inline-flex min-h-6 items-center gap-1.5">
            <input
              type="checkbox"
              checked={settings.background.includes(id)}
              onChange={(event) =>
                onChange({
                  background: event.target.checked
                    ? [...settings.background, id]
                    : settings.background.filter((one) => one !== id),
                })
              }
            />
            {name}
          </label>
        ))}
      </span>
      <label className="mt-2 flex min-h-6 items-center gap-1.5">
        <input
          type="checkbox"
          checked={settings.masked}
          onChange={(event) => onChange({ masked: event.target.checked })}
        />
        {trayTexts.maskContactDetailsNames}
      </label>
      {settings.masked && (
        <label className="mt-2 block">
          {trayTexts.otherNamesMasked}
          <input
            className="mt-0.5 w-full rounded border border-rule bg-card px-2 py-1"
            placeholder={trayTexts.annOdell}
            value={names}
            onChange={(event) => setNames(event.target.value)}
            onBlur={() =>
              onChange({
                names: names
                  .split(',')
                  .map((name) => name.trim())
                  .filter((name) => name !== ''),
              })
            }
          />
        </label>
      )}
    </fieldset>
  );
}

function Quotes({
  study,
  writeUp: { quotes },
  editor,
}: {
  study: StudyDetail;
  writeUp: WriteUp;
  editor: Editor | null;
}) {
  const codebook = useDrawnCodebook(study.id);
  if (!codebook) return null;
  if (quotes.length === 0)
    return <p className="text-[13px] text-soft">{trayTexts.nonePickedYetOpen}</p>;
  const sections = [...codebook.themes, null]
    .map((theme) => ({
      theme,
      quotes: quotes.filter(
        ({ codeId }) => (codebook.byId.get(codeId)?.themeId ?? null) === (theme?.id ?? null),
      ),
    }))
    .filter((section) => section.quotes.length > 0);
  return sections.map(({ theme, quotes: some }) => (
    <section key={theme?.id ?? 'none'} className="mb-4">
      <h3 className="flex items-center gap-2 font-semibold">
        {theme && <StitchMark look={theme.look} />}
        {theme?.name ?? trayTexts.withoutTheme}
      </h3>
      <ul>
        {some.map(({ codeId, text, who }, q) => (
          <li key={q} className="border-b border-rule py-2">
            <p className="font-serif text-[16px] leading-snug">“{text}”</p>
            <p className="flex items-baseline justify-between gap-2 text-[13px] text-soft">
              <span>
                {codebook.byId.get(codeId)?.name}
                {who && ` · ${who}`}
              </span>
              {editor && (
                <button
                  type="button"
                  className="underline"
                  aria-label={trayTexts.put(text.slice(0, 60))}
                  onClick={() =>
                    editor
                      .chain()
                      .focus()
                      .insertContent({
                        type: 'blockquote',
                        content: [
                          {
                            type: 'paragraph',
                            content: [{ type: 'text', text: `“${text}”${who && ` (${who})`}` }],
                          },
                        ],
                      })
                      .run()
                  }
                >
                  {trayTexts.put2}
                </button>
              )}
            </p>
          </li>
        ))}
      </ul>
    </section>
  ));
}
