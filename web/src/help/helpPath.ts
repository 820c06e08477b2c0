import { stopIn } from '../frame/studyLocation.js';
import { helpPathTexts } from './texts.js';

/** Pages of the guide, in order. */
export const GUIDE = [
  { key: 'start', name: helpPathTexts.jobShort },
  { key: 'import', name: helpPathTexts.import },
  { key: 'look', name: helpPathTexts.look },
  { key: 'code', name: helpPathTexts.code },
  { key: 'codebook', name: helpPathTexts.codebook },
  { key: 'train', name: helpPathTexts.train },
  { key: 'review', name: helpPathTexts.review },
  { key: 'report', name: helpPathTexts.report },
  { key: 'second-reading', name: helpPathTexts.secondReadings },
  { key: 'groups', name: helpPathTexts.groupsRespondents },
  { key: 'team', name: helpPathTexts.teamStudies },
  { key: 'terms', name: helpPathTexts.termsStatistics },
] as const;
export type GuidePage = (typeof GUIDE)[number]['key'];

/** Pages that are told of together with another one. */
const toldIn: Record<string, GuidePage> = {
  respondents: 'groups',
  left: 'review',
  tone: 'review',
  about: 'team',
  notes: 'code',
  maps: 'codebook',
  'write-ups': 'report',
  history: 'team',
};

/** The page of the guide that tells about an address of the study. */
export function guidePageOf(pathname: string): GuidePage {
  const stop = stopIn(pathname);
  if (stop) return stop;
  const parts = pathname.split('/');
  const known = parts.flatMap(
    (part) => GUIDE.find(({ key }) => key === part)?.key ?? toldIn[part] ?? [],
  );
  return known[0] ?? 'start';
}

/** The guide within a study, opened at the page about an address. */
export const helpPath = (study: number, pathname: string): string =>
  `/studies/${study}/help/${pathname.includes('/help/') ? pathname.split('/help/')[1]! : guidePageOf(pathname)}`;
