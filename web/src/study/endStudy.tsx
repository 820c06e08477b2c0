import type { StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { useArchiveStudy, useDeleteStudy, useStudies } from '../data/studies.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { endStudyTexts, studyTexts } from './texts.js';

/** Laying a study aside, or deleting it for good. */
export function EndStudy({ study }: { study: StudyDetail }) {
  const listed = useStudies().data?.studies.find(({ id }) => id === study.id);
  const archive = useArchiveStudy(study.id);
  const [deletes, setDeletes] = useState(false);
  if (!listed) return null;
  const { isArchived, team } = listed;
  return (
    <section
      aria-labelledby="end-study"
      className="flex flex-col items-start gap-3 border-t border-rule pt-6"
    >
      <h2 id="end-study">{endStudyTexts.archiveDelete}</h2>
      <p className="max-w-prose text-soft">
        {isArchived && `${studyTexts.isArchived} `}
        {studyTexts.archiveWhy}
      </p>
      <div className="flex flex-wrap gap-3">
        <Button onClick={() => archive.mutate(!isArchived)} disabled={archive.isPending}>
          {isArchived ? studyTexts.unarchive : studyTexts.archive}
        </Button>
        {!deletes && (
          <Button look="grave" onClick={() => setDeletes(true)}>
            {studyTexts.deleteOpen}
          </Button>
        )}
      </div>
      {archive.error && <ProblemNote error={archive.error} />}
      {deletes && <DeleteStudy study={study} team={team} onKeep={() => setDeletes(false)} />}
    </section>
  );
}

function DeleteStudy({
  study,
  team,
  onKeep,
}: {
  study: StudyDetail;
  team: readonly string[];
  onKeep: () => void;
}) {
  const navigate = useNavigate();
  const remove = useDeleteStudy(study.id, () => {
    toast(studyTexts.deleted(study.name));
    void navigate('/studies');
  });
  const [name, setName] = useState('');
  const counts = {
    respondents: study.allRespondents,
    questions: study.questions.length,
    answers: study.questions.reduce((sum, { answered }) => sum + answered, 0),
  };
  return (
    <form
      className="flex max-w-prose flex-col gap-3 border-l-[3px] border-brick bg-card px-4 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        remove.mutate(name);
      }}
    >
      <p>{studyTexts.deleteWhat(counts, team)}</p>
      <Field
        label={studyTexts.deleteNameLabel}
        hint={studyTexts.deleteName(study.name)}
        autoComplete="off"
        autoFocus
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      {remove.error && <ProblemNote error={remove.error} />}
      <div className="flex gap-3">
        <Button
          type="submit"
          look="grave"
          disabled={name.trim() !== study.name.trim() || remove.isPending}
        >
          {studyTexts.delete}
        </Button>
        <Button onClick={onKeep}>{studyTexts.keep}</Button>
      </div>
    </form>
  );
}
