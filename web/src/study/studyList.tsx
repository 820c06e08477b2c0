import type { ListedStudy } from '@yellow-thread/contract';
import { foldForSearch } from '@yellow-thread/core/text';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSession, useSignOut } from '../data/people.js';
import { useCreateStudy, useStudies } from '../data/studies.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { OpenCopy } from '../studyFile/openCopy.js';
import { studyListTexts, studyTexts } from './texts.js';

/** From so many on they can be searched and sorted. */
const MANY = 6;

const orders = {
  opened: studyListTexts.lastOpenedFirst,
  name: studyListTexts.name,
  newest: studyListTexts.newestFirst,
} as const;
type Order = keyof typeof orders;
const byOrder: Record<Order, (x: ListedStudy, y: ListedStudy) => number> = {
  // as they come
  opened: () => 0,
  name: (x, y) => x.name.localeCompare(y.name),
  newest: (x, y) => y.id - x.id,
};

export function StudyList() {
  const studies = useStudies();
  const { data: session } = useSession();
  const signOut = useSignOut();
  return (
    <main className="mx-auto flex max-w-4xl flex-col gap-8 px-4 py-8 sm:px-8 sm:py-12">
      <title>{studyListTexts.studiesYellowThread}</title>
      <header className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2 border-b border-rule pb-4">
        <h1 className="border-l-[3px] border-thread pl-3">{studyListTexts.studies}</h1>
        <span className="flex flex-wrap items-baseline gap-3">
          <span className="text-soft">{session?.account?.name}</span>
          {session?.account?.hasPassword && (
            <Link to="/password" className="text-soft hover:text-ink">
              {studyListTexts.password}
            </Link>
          )}
          <Button look="bare" onClick={() => signOut.mutate(undefined)}>
            {studyListTexts.signOut}
          </Button>
        </span>
      </header>
      {studies.isError && <ProblemNote error={studies.error} />}
      {studies.isPending && <Waiting what={studyListTexts.yourStudies} />}
      {studies.data && <Listed studies={studies.data.studies} />}
      {/* below the list, which would push it from under the pointer when it comes */}
      {!studies.isPending && <NewStudy />}
      {!studies.isPending && <OpenCopy />}
    </main>
  );
}

function Listed({ studies }: { studies: ListedStudy[] }) {
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<Order>('opened');
  const [showsArchived, setShowsArchived] = useState(false);
  const found = studies
    .filter(({ name, purpose }) =>
      foldForSearch(`${name} ${purpose}`).includes(foldForSearch(words)),
    )
    .sort(byOrder[order]);
  const active = found.filter(({ isArchived }) => !isArchived);
  const archived = found.filter(({ isArchived }) => isArchived);
  return (
    <section aria-label={studyListTexts.yourStudies2} className="flex flex-col gap-3">
      {studies.length >= MANY && (
        <div className="flex flex-wrap items-end gap-4">
          <Field
            label={studyListTexts.findStudy}
            type="search"
            className="w-64"
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
          <Choice
            label={studyListTexts.order}
            value={order}
            onChange={(event) => setOrder(event.target.value as Order)}
          >
            {Object.entries(orders).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
        </div>
      )}
      <ul className="flex flex-col gap-3">
        {active.map((study) => (
          <StudyCard key={study.id} study={study} />
        ))}
      </ul>
      {studies.length > 0 && found.length === 0 && <p>{studyListTexts.noStudyWordsName}</p>}
      {archived.length > 0 && (
        <>
          <Button
            look="bare"
            className="self-start"
            aria-expanded={showsArchived}
            onClick={() => setShowsArchived(!showsArchived)}
          >
            {showsArchived ? studyListTexts.hide : studyListTexts.show}{' '}
            {studyListTexts.archivedStudiesCounted(archived.length)}
          </Button>
          {showsArchived && (
            <ul className="flex flex-col gap-3">
              {archived.map((study) => (
                <StudyCard key={study.id} study={study} />
              ))}
            </ul>
          )}
        </>
      )}
    </section>
  );
}

function StudyCard({ study }: { study: ListedStudy }) {
  const { name, purpose, respondents, questions, team, openedAt } = study;
  return (
    <li>
      <Link
        to={`/studies/${study.id}`}
        className="block rounded border border-rule bg-card px-5 py-4 hover:border-soft"
      >
        <span className="flex flex-wrap items-baseline justify-between gap-x-4">
          <span className="text-[17px] font-semibold">{name}</span>
          <span className="text-[13px] text-soft">
            {openedAt ? studyListTexts.opened(openedAt) : studyListTexts.openedYet}
          </span>
        </span>
        {purpose && <span className="block max-w-prose">{purpose}</span>}
        <span className="block text-soft">
          {respondents === 0
            ? studyListTexts.nothingImportedYet
            : studyListTexts.respondentCounted(respondents)}
          {team.length > 0 && studyListTexts.with(team)}
        </span>
        {questions.length > 0 && (
          <span className="mt-2 flex flex-col gap-1">
            {questions.map((question) => (
              <QuestionProgress key={question.id} {...question} />
            ))}
          </span>
        )}
      </Link>
    </li>
  );
}

/** How far a question is: the thread as long as its share of settled answers. */
function QuestionProgress({ label, answered, settled }: ListedStudy['questions'][number]) {
  const share = answered > 0 ? settled / answered : 0;
  return (
    <span className="grid grid-cols-[minmax(0,14rem)_minmax(0,1fr)] items-center gap-x-4 text-[13px] max-sm:grid-cols-1">
      <span className="truncate">{label}</span>
      <span className="flex flex-wrap items-center gap-x-3">
        <span aria-hidden className="relative h-[3px] w-28 bg-rule">
          <span
            className="absolute inset-y-0 left-0 bg-thread"
            style={{ width: `${100 * Math.min(1, share)}%` }}
          />
        </span>
        <span className="figures text-soft">{studyTexts.shareSettled(settled, answered)}</span>
      </span>
    </span>
  );
}

function NewStudy() {
  const create = useCreateStudy();
  const navigate = useNavigate();
  const [name, setName] = useState('');
  const [purpose, setPurpose] = useState('');
  return (
    <form
      className="flex max-w-xl flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        create.mutate(
          { name, purpose },
          { onSuccess: (study) => void navigate(`/studies/${study.id}/import`) },
        );
      }}
    >
      <h2>{studyListTexts.newStudy}</h2>
      <Field
        label={studyListTexts.name2}
        required
        maxLength={120}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Field
        label={studyListTexts.purpose}
        maxLength={600}
        value={purpose}
        onChange={(event) => setPurpose(event.target.value)}
        hint={studyListTexts.researchQuestionSentenceTwo}
      />
      {create.error && <ProblemNote error={create.error} />}
      <Button type="submit" look="main" className="self-start" disabled={create.isPending}>
        {studyListTexts.createStudy}
      </Button>
    </form>
  );
}
