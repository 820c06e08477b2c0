import type { LedgerAnswer, StudyDetail } from '@yellow-thread/contract';
import { nameIn } from '../data/background.js';
import type { SeenCodebook } from '../data/codebook.js';
import { useOtherAnswers } from '../data/coding.js';
import { useChangeNote } from '../data/notes.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { AnswerText } from '../parts/answerText.js';
import { NewNote, NoteList } from '../studyParts/noteList.js';
import { CodeList } from '../studyParts/codeList.js';
import { respondentDrawerTexts } from './texts.js';

/** Who wrote an answer: background, what else they wrote, and what was noted of them. */
export function RespondentDrawer({
  study,
  answer,
  codebook,
}: {
  study: StudyDetail;
  answer: LedgerAnswer;
  codebook: SeenCodebook;
}) {
  const others = useOtherAnswers(study.id, answer.respondentId);
  const { mutate: change } = useChangeNote(study.id);
  return (
    <div className="flex flex-col gap-5">
      <dl className="grid grid-cols-[max-content_1fr] gap-x-4 gap-y-1">
        {study.variables.map((variable) => (
          <div key={variable.id} className="contents">
            <dt className="text-soft">{variable.name}</dt>
            <dd>{nameIn(variable, answer.background) || <span className="text-soft">–</span>}</dd>
          </div>
        ))}
      </dl>
      {others.isError && <ProblemNote error={others.error} />}
      {others.isPending && <Waiting what={respondentDrawerTexts.answers} />}
      {others.data?.answers.map((one) => (
        <section
          key={one.id}
          className={one.id === answer.id ? 'border-l-[3px] border-thread pl-3' : ''}
        >
          <p className="text-[13px] text-soft">
            {study.questions.find(({ id }) => id === one.questionId)?.wording}
          </p>
          <p className={`voice ${one.noAnswer ? 'text-soft' : ''}`}>
            {one.text.trim() === '' ? (
              respondentDrawerTexts.leftEmpty
            ) : (
              <AnswerText text={one.text} asides={study.asides} />
            )}
          </p>
          <CodeList codeIds={one.codeIds} codebook={codebook} />
        </section>
      ))}
      <section aria-label={respondentDrawerTexts.notesRespondent} className="flex flex-col gap-2">
        <NoteList notes={others.data?.notes ?? []} codebook={codebook} onChange={change} />
        <NewNote
          label={respondentDrawerTexts.noteRespondent}
          on={{ respondentId: answer.respondentId }}
          onChange={change}
        />
      </section>
    </div>
  );
}
