import { Link, Outlet, useParams } from 'react-router';
import { EmptyState } from '../parts/notices.js';
import { stopPath, useStudyDetail, type StudyLocation } from './studyLocation.js';
import { QuestionBar } from './questionBar.js';
import { frameTexts } from './texts.js';

/** Keeps the question in view over every stop that concerns one. */
export function QuestionFrame() {
  const study = useStudyDetail();
  const id = Number(useParams()['question']);
  const question = study.questions.find((one) => one.id === id);
  if (!question)
    return (
      <EmptyState title={frameTexts.noQuestion}>
        <p>{frameTexts.noQuestionWhy}</p>
        <Link className="underline" to={stopPath(study.id, 'code', study.questions[0]?.id)}>
          {frameTexts.toStudy}
        </Link>
      </EmptyState>
    );
  return (
    <>
      <QuestionBar study={study} question={question} />
      <Outlet context={{ study, question } satisfies StudyLocation} />
    </>
  );
}
