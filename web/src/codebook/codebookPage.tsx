import { useState } from 'react';
import { useSearchParams } from 'react-router';
import {
  useChangeCodebook,
  useDrawnCodebook,
  type DrawnCode,
  type DrawnCodebook,
} from '../data/codebook.js';
import { SavedSign } from '../frame/savedSign.js';
import { useStudyPlace } from '../frame/place.js';
import { Button } from '../parts/button.js';
import { inputBox } from '../parts/field.js';
import { Waiting } from '../parts/notices.js';
import { counted } from '../parts/numbers.js';
import { StitchMark } from '../parts/stitch.js';
import { CodeEditor } from './codeEditor.js';

/** Themes and codes with their counts at the left, the chosen code's text at the right. */
export function CodebookPage() {
  const study = useStudyPlace();
  const codebook = useDrawnCodebook(study.id);
  const [search, setSearch] = useSearchParams();
  const choose = (id: string) => setSearch({ code: id }, { replace: true });
  if (!codebook) return <Waiting what="the codebook" />;
  const chosen = search.get('code') ?? firstInOrder(codebook)?.id ?? null;
  const code = chosen ? codebook.byId.get(chosen) : undefined;
  const loose = codebook.codes.filter((one) => one.themeId === null);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[minmax(320px,400px)_minmax(0,1fr)]">
      <section
        aria-label="Themes and codes"
        className="flex min-h-0 flex-col overflow-y-auto border-r border-rule px-6 py-5"
      >
        <header className="mb-2 flex items-baseline justify-between">
          <h1>Codebook</h1>
          <span className="text-soft">
            {counted(codebook.themes.length, 'theme')}, {counted(codebook.codes.length, 'code')}
          </span>
        </header>
        {codebook.codes.length === 0 && (
          <p className="mb-3 text-soft">
            No codes yet. Make them here, or while you code: a new name makes a new code.
          </p>
        )}
        {codebook.themes.map((theme) => (
          <section key={theme.id} className="mt-3" aria-label={theme.name}>
            <ThemeHead study={study.id} theme={theme} />
            <CodeList
              codes={codebook.codes.filter((one) => one.themeId === theme.id)}
              chosen={chosen}
              onChoose={choose}
            />
          </section>
        ))}
        {loose.length > 0 && (
          <section className="mt-3" aria-label="Without a theme">
            <h2 className="border-b border-rule pb-1 text-soft">Without a theme</h2>
            <CodeList codes={loose} chosen={chosen} onChoose={choose} />
          </section>
        )}
        <MakeNew study={study.id} onMade={choose} />
      </section>
      <section aria-label="The code" className="min-h-0 overflow-y-auto px-8 py-5">
        <div className="flex justify-end">
          <SavedSign />
        </div>
        {code ? (
          <CodeEditor
            key={code.id}
            code={code}
            themes={codebook.themes}
            study={study.id}
            onRemoved={() => setSearch({}, { replace: true })}
          />
        ) : (
          <p className="text-soft">
            The text of a code stands here: what belongs to it, and what does not.
          </p>
        )}
      </section>
    </main>
  );
}

/** The code that stands first on the page. */
const firstInOrder = ({ themes, codes }: DrawnCodebook): DrawnCode | undefined =>
  [...themes.map((theme) => theme.id), null]
    .flatMap((theme) => codes.filter((one) => one.themeId === theme))
    .at(0);

function ThemeHead({
  study,
  theme,
}: {
  study: number;
  theme: { id: string; name: string; look: DrawnCode['look'] };
}) {
  const change = useChangeCodebook(study);
  const [name, setName] = useState(theme.name);
  return (
    <h2 className="flex items-center gap-2 border-b border-rule pb-1">
      <StitchMark look={theme.look} />
      <input
        aria-label={`Name of the theme ${theme.name}`}
        value={name}
        maxLength={120}
        onChange={(event) => setName(event.target.value)}
        onBlur={() => {
          const to = name.trim();
          if (to === '' || to === theme.name) setName(theme.name);
          else
            change.mutate(
              { do: 'renameTheme', id: theme.id, from: theme.name, to },
              { onError: () => setName(theme.name) },
            );
        }}
        className="w-full bg-transparent font-semibold"
        style={{ color: theme.look.ink }}
      />
    </h2>
  );
}

function CodeList({
  codes,
  chosen,
  onChoose,
}: {
  codes: DrawnCode[];
  chosen: string | null;
  onChoose: (id: string) => void;
}) {
  return (
    <ul>
      {codes.map((code) => (
        <li key={code.id}>
          <button
            type="button"
            aria-pressed={code.id === chosen}
            onClick={() => onChoose(code.id)}
            className="flex w-full items-baseline gap-3 rounded px-2 py-1 text-left hover:bg-wash aria-pressed:bg-wash"
          >
            <span className="min-w-0 flex-1 truncate">{code.name}</span>
            <span className="figures text-[13px] text-soft">
              {counted(code.people, 'person', 'people')} · {counted(code.mentions, 'mention')}
            </span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function MakeNew({ study, onMade }: { study: number; onMade: (code: string) => void }) {
  const change = useChangeCodebook(study);
  const [name, setName] = useState('');
  const make = (what: 'code' | 'theme') => {
    const id = crypto.randomUUID();
    const done = { onSuccess: () => setName('') };
    if (what === 'theme') change.mutate({ do: 'createTheme', theme: { id, name } }, done);
    else
      change.mutate(
        { do: 'createCode', code: { id, name, themeId: null } },
        {
          onSuccess: () => {
            setName('');
            onMade(id);
          },
        },
      );
  };
  return (
    <form
      className="mt-6 flex gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        make('code');
      }}
    >
      <input
        aria-label="Name of a new code or theme"
        placeholder="a new name"
        required
        maxLength={120}
        value={name}
        onChange={(event) => setName(event.target.value)}
        className={`${inputBox} min-w-0 flex-1`}
      />
      <Button type="submit" disabled={name.trim() === ''}>
        Add code
      </Button>
      <Button disabled={name.trim() === ''} onClick={() => make('theme')}>
        Add theme
      </Button>
    </form>
  );
}
