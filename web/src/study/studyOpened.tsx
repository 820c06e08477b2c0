import { Navigate, useParams } from 'react-router';
import { openingPath, useMembership } from '../data/membership.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { studyOpenedTexts } from './texts.js';

/** Leads on to where a study opens, for who signed in at its address: everybody else is led there by the router. */
export function StudyOpened() {
  const study = Number(useParams()['study']);
  const membership = useMembership(study);
  if (membership.isError) return <PageProblem error={membership.error} />;
  if (!membership.data) return <Waiting what={studyOpenedTexts.study} />;
  return <Navigate to={openingPath(study, membership.data)} replace />;
}
