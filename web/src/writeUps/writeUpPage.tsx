import { useParams } from 'react-router';
import { useWriteUp } from '../data/writeUps.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { WriteUpEditor } from './writeUpEditor.js';
import { WriteUpList } from './writeUpList.js';
import { writeUpPageTexts } from './texts.js';

/** The write-ups, or the one that is open. */
export function WriteUpPage() {
  const id = useParams()['writeUp'];
  return id === undefined ? <WriteUpList /> : <OpenWriteUp key={id} id={id} />;
}

function OpenWriteUp({ id }: { id: string }) {
  const study = useStudyDetail();
  const writeUp = useWriteUp(study.id, id);
  if (writeUp.isError) return <PageProblem error={writeUp.error} />;
  if (!writeUp.data) return <Waiting what={writeUpPageTexts.writeUp} />;
  return <WriteUpEditor study={study} writeUp={writeUp.data} />;
}
