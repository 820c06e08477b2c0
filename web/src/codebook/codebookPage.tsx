import { foldForSearch } from '@yellow-thread/core/text';
import { useState } from 'react';
import { Link } from 'react-router';
import {
  useChangeCodebook,
  useDrawnCodebook,
  type DrawnCode,
  type DrawnCodebook,
} from '../data/codebook.js';
import { useAddressPart } from '../frame/address.js';
import { useKeyHelp } from '../frame/keys.js';
import { SaveStatus } from '../frame/saveStatus.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice, inputBox } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { Bundles } from './bundles.js';
import { CodeEditor } from './codeEditor.js';
import { CodeRows } from './codeRows.js';
import { InAndOut } from '../exchange/inAndOut.js';
import { ThemeHead } from './themeHead.js';
import { codebookHelp } from './commands.js';
import { codebookPageTexts } from './texts.js';

const sorts = {
  order: codebookPageTexts.order,
  name: codebookPageTexts.name,
  use: codebookPageTexts.mostUsedFirst,
  last: codebookPageTexts.usedLastFirst,
};
type Sort = keyof typeof sorts;

const bySort: Record<Sort, (x: DrawnCode, y: DrawnCode) => number> = {
  order: () => 0,
  name: (x, y) => x.name.localeCompare(y.name),
  use: (x, y) => y.people - x.people || y.mentions - x.mentions,
  last: (x, y) => ((x.lastUsed ?? '') < (y.lastUsed ?? '') ? 1 : -1),
};

/** Themes and codes with their counts at the left, the chosen code at the right. */
export function CodebookPage() {
  const study = useStudyDetail();
  const codebook = useDrawnCodebook(study.id);
  const [chosenId, choose] = useAddressPart('code');
  const [typed, setTyped] = useState('');
  const [sort, setSort] = useState<Sort>('order');
  const { mutate: change, error } = useChangeCodebook(study.id);
  useKeyHelp(codebookHelp);
  if (!codebook) return <Waiting what={codebookPageTexts.codebook} />;
  const chosen = chosenId ?? firstInOrder(codebook)?.id ?? null;
  const code = chosen ? codebook.byId.get(chosen) : undefined;
  const wanted = foldForSearch(typed);
  const shown = codebook.codes
    .filter((one) =>
      foldForSearch(`${one.name} ${one.themeName ?? ''} ${one.definition}`).includes(wanted),
    )
    .toSorted(bySort[sort]);
  const loose = shown.filter((one) => one.themeId === null && !one.archived);
  const away = shown.filter((one) => one.archived);
  const rows = (codes: DrawnCode[], themeId: string | null) => (
    <CodeRows
      codes={codes}
      themeId={themeId}
      codebook={codebook}
      chosen={chosen}
      canMove={sort === 'order' && wanted === ''}
      onChoose={choose}
      onMove={(id, to) => change({ do: 'moveCode', id, ...to })}
    />
  );
  return (
    <main className="work-list grid grid-cols-[minmax(320px,420px)_minmax(0,1fr)] grid-rows-[minmax(0,1fr)] max-[760px]:grid-cols-1 max-[760px]:grid-rows-[auto_auto]">
      <section
        aria-label={codebookPageTexts.themesCodes}
        className="flex min-h-0 flex-col overflow-y-auto border-r border-rule px-6 py-5 max-[760px]:border-r-0 max-sm:px-3"
      >
        <header className="mb-2 flex items-baseline justify-between">
          <h1>{codebookPageTexts.codebook2}</h1>
          <Link to={`/studies/${study.id}/maps`} className="ml-auto mr-4 text-[13px] underline">
            {codebookPageTexts.maps}
          </Link>
          <span className="text-soft">
            {codebookPageTexts.themeCounted(codebook.themes.length)},{' '}
            {codebookPageTexts.codeCounted(codebook.codes.length)}
          </span>
        </header>
        <div className="flex gap-2">
          <input
            aria-label={codebookPageTexts.findCode}
            placeholder={codebookPageTexts.findCode2}
            className={`${inputBox} min-w-0 flex-1`}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <Choice
            label={codebookPageTexts.sorted}
            hideLabel
            value={sort}
            onChange={(event) => setSort(event.target.value as Sort)}
          >
            {Object.entries(sorts).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
        </div>
        {codebook.codes.length === 0 && (
          <p className="mt-3 text-soft">{codebookPageTexts.noCodesYetMake}</p>
        )}
        {error && <ProblemNote error={error} />}
        {codebook.themes.map((theme, place) => {
          const its = shown.filter((one) => one.themeId === theme.id && !one.archived);
          if (wanted !== '' && its.length === 0) return null;
          return (
            <section key={theme.id} className="mt-3" aria-label={theme.name}>
              <ThemeHead
                study={study.id}
                theme={theme}
                place={place}
                themes={codebook.themes}
                codes={its.length}
              />
              {rows(its, theme.id)}
            </section>
          );
        })}
        {(loose.length > 0 || codebook.themes.length > 0) && wanted === '' && (
          <section className="mt-3" aria-label={codebookPageTexts.withoutTheme}>
            <h2 className="border-b border-rule pb-1 text-soft">
              {codebookPageTexts.withoutTheme}
            </h2>
            {rows(loose, null)}
          </section>
        )}
        {wanted !== '' && rows(loose, null)}
        {away.length > 0 && (
          <section className="mt-3" aria-label={codebookPageTexts.archived}>
            <h2 className="border-b border-rule pb-1 text-soft">{codebookPageTexts.archived}</h2>
            {rows(away, null)}
          </section>
        )}
        <MakeNew study={study.id} onMade={choose} />
        <Bundles study={study.id} codebook={codebook} />
        <InAndOut study={study.id} />
        <Link to={`/studies/${study.id}/history`} className="mt-6 underline">
          {codebookPageTexts.whatChangedWhenWhom}
        </Link>
      </section>
      <section
        aria-label={codebookPageTexts.code}
        className="min-h-0 overflow-y-auto px-8 py-5 max-[760px]:border-t max-[760px]:border-rule max-sm:px-3"
      >
        <div className="flex justify-end">
          <SaveStatus />
        </div>
        {code ? (
          <CodeEditor
            key={code.id}
            code={code}
            codebook={codebook}
            study={study}
            onGone={() => choose(null)}
          />
        ) : (
          <p className="text-soft">{codebookPageTexts.textCodeStandsHere}</p>
        )}
      </section>
    </main>
  );
}

/** The code that stands first on the page. */
const firstInOrder = ({ themes, codes }: DrawnCodebook): DrawnCode | undefined =>
  [...themes.map((theme) => theme.id), null]
    .flatMap((theme) => codes.filter((one) => one.themeId === theme && !one.archived))
    .at(0);

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
        aria-label={codebookPageTexts.nameNewCodeTheme}
        placeholder={codebookPageTexts.newName}
        required
        maxLength={120}
        value={name}
        onChange={(event) => setName(event.target.value)}
        className={`${inputBox} min-w-0 flex-1`}
      />
      <Button type="submit" disabled={name.trim() === ''}>
        {codebookPageTexts.addCode}
      </Button>
      <Button disabled={name.trim() === ''} onClick={() => make('theme')}>
        {codebookPageTexts.addTheme}
      </Button>
    </form>
  );
}
