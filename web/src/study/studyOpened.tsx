import { Navigate, useNavigation, useParams } from 'react-router';
import { useMembership } from '../data/membership.js';
import { PageProblem, Waiting } from '../parts/notices.js';

/** A study opens where the person stopped; who was asked for a second reading before is led there. */
export function StudyOpened() {
  const { study } = useParams();
  const membership = useMembership(Number(study));
  const isLeaving = useNavigation().state !== 'idle';
  if (membership.isError) return <PageProblem error={membership.error} />;
  // who has gone on already, while it was being looked up, is not led back; nor to where they were days ago
  if (!membership.data || membership.isFetching || isLeaving) return <Waiting what="the study" />;
  const { place, readings } = membership.data;
  const [reading] = readings;
  const asked = reading && `questions/${reading.questionId}/second-reading/${reading.id}`;
  return <Navigate to={`/studies/${study}/${place ?? asked ?? 'import'}`} replace />;
}
