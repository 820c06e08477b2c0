import { Navigate, Outlet, useParams } from 'react-router';
import { useStudyPlace, type Place } from './place.js';
import { QuestionBar } from './questionBar.js';

/** Keeps the question in view over every stop that concerns one. */
export function QuestionFrame() {
  const study = useStudyPlace();
  const id = Number(useParams()['question']);
  const question = study.questions.find((one) => one.id === id);
  if (!question) return <Navigate to={`/studies/${study.id}/import`} replace />;
  return (
    <>
      <QuestionBar study={study} question={question} />
      <Outlet context={{ study, question } satisfies Place} />
    </>
  );
}
