import { useOutletContext, useParams } from 'react-router';
import type { Question, StudyDetail } from '@yellow-thread/contract';
import { stopNames } from './texts.js';

/** The study that the page is about. */
export function useStudyId(): number {
  return Number(useParams()['study']);
}

/** What a stop stands on: its study and, where it concerns one, its question. */
export interface StudyLocation {
  study: StudyDetail;
  question: Question;
}

export const useStudyLocation = () => useOutletContext<StudyLocation>();
export const useStudyDetail = () => useOutletContext<StudyDetail>();

/** The six stops of the job, in order. */
export const STOPS = [
  { key: 'import', name: stopNames.import },
  { key: 'look', name: stopNames.look },
  { key: 'code', name: stopNames.code },
  { key: 'train', name: stopNames.train },
  { key: 'review', name: stopNames.review },
  { key: 'report', name: stopNames.report },
] as const;
export type StopKey = (typeof STOPS)[number]['key'];

/** The stop that an address is at; null for a page beside the stops. */
export const stopIn = (pathname: string): StopKey | null =>
  STOPS.find(({ key }) => pathname.split('/').includes(key))?.key ?? null;

export const stopPath = (study: number, stop: StopKey, question: number | undefined): string =>
  stop === 'import' || question === undefined
    ? `/studies/${study}/import`
    : `/studies/${study}/questions/${question}/${stop}`;
