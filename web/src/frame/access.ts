import { hasAccess, type Access, type Role, type StudyDetail } from '@yellow-thread/contract';
import { useStudy } from '../data/studies.js';
import { stopPath, useStudyId, type StopKey } from './studyLocation.js';

/** Whose each stop is. */
export const STOP_ACCESS: Readonly<Record<StopKey, Access>> = {
  import: 'research',
  look: 'research',
  code: 'coding',
  train: 'research',
  review: 'research',
  report: 'reading',
};

/** Whose the other pages are, by the part of the address that they have alone; left out, researchers'. */
const PAGE_ACCESS: Readonly<Record<string, Access>> = {
  'second-reading': 'coding',
  help: 'membership',
  team: 'membership',
  'write-ups': 'reading',
};

/** Whose a page is. @param path its address within the study */
export function accessOfPage(path: string): Access {
  const [first = '', , third = ''] = path.split('/');
  if (first === '') return 'membership';
  const key = first === 'questions' ? third : first;
  return (STOP_ACCESS as Readonly<Record<string, Access>>)[key] ?? PAGE_ACCESS[key] ?? 'research';
}

/** The address of a page within its study, of an address of the product. */
export const pathInStudy = (pathname: string): string => pathname.split('/').slice(3).join('/');

/** Whether whoever is signed in may do in this study what is for some; while that is not known, no. */
export function useMay(access: Access): boolean {
  const role = useStudy(useStudyId()).data?.role;
  return role !== undefined && hasAccess(role, access);
}

/** The stop at which a role begins. */
const FIRST_STOP: Readonly<Record<Role, StopKey>> = {
  owner: 'import',
  researcher: 'import',
  coder: 'code',
  reader: 'report',
};

/** Where somebody begins to work in a study; null where there is nothing for them yet. */
export function homeIn({ id, role, questions }: StudyDetail): string | null {
  const stop = FIRST_STOP[role];
  return stop !== 'import' && questions.length === 0 ? null : stopPath(id, stop, questions[0]?.id);
}
