import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useSession, useSignOut } from '../data/people.js';
import { useCreateStudy, useStudies } from '../data/studies.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { counted } from '../parts/numbers.js';

export function StudyList() {
  const studies = useStudies();
  const { data: session } = useSession();
  const signOut = useSignOut();
  return (
    <main className="mx-auto flex max-w-4xl flex-col gap-8 px-8 py-12">
      <title>Studies – Yellow Thread</title>
      <header className="flex items-baseline justify-between border-b border-rule pb-4">
        <h1 className="border-l-[3px] border-thread pl-3">Studies</h1>
        <span className="flex items-baseline gap-3">
          <span className="text-soft">{session?.account?.name}</span>
          {session?.account?.hasPassword && (
            <Link to="/password" className="text-soft hover:text-ink">
              Password
            </Link>
          )}
          <Button look="bare" onClick={() => signOut.mutate(undefined)}>
            Sign out
          </Button>
        </span>
      </header>
      {studies.isError && <ProblemNote error={studies.error} />}
      {studies.isPending && <Waiting what="your studies" />}
      {studies.data && (
        <ul className="flex flex-col gap-3">
          {studies.data.studies.map((study) => (
            <li key={study.id}>
              <Link
                to={`/studies/${study.id}/import`}
                className="block rounded border border-rule bg-card px-5 py-4 hover:border-soft"
              >
                <span className="text-[17px] font-semibold">{study.name}</span>
                {study.purpose && <span className="block max-w-prose">{study.purpose}</span>}
                <span className="text-soft">
                  {study.respondents === 0
                    ? 'No sheet brought in yet'
                    : `${counted(study.respondents, 'respondent')}, ${counted(study.questions, 'open question')}`}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
      <NewStudy />
    </main>
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
      <h2>New study</h2>
      <Field
        label="Name"
        required
        maxLength={120}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Field
        label="Purpose"
        maxLength={600}
        value={purpose}
        onChange={(event) => setPurpose(event.target.value)}
        hint="The research question in a sentence or two."
      />
      {create.error && <ProblemNote error={create.error} />}
      <Button type="submit" look="main" className="self-start" disabled={create.isPending}>
        Begin the study
      </Button>
    </form>
  );
}
