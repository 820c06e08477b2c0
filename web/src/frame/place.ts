import { useOutletContext, useParams } from 'react-router';
import type { Question, StudyDetail } from '@yellow-thread/contract';
import { placeTexts } from './texts.js';

/** The study that the page is about. */
export function useStudyId(): number {
  return Number(useParams()['study']);
}

/** What a stop stands on: its study and, where it concerns one, its question. */
export interface Place {
  study: StudyDetail;
  question: Question;
}

export const usePlace = () => useOutletContext<Place>();
export const useStudyPlace = () => useOutletContext<StudyDetail>();

/** The six stops of the job, in order. */
export const STOPS = [
  { key: 'import', name: placeTexts.import },
  { key: 'look', name: placeTexts.look },
  { key: 'code', name: placeTexts.code },
  { key: 'train', name: placeTexts.train },
  { key: 'review', name: placeTexts.review },
  { key: 'report', name: placeTexts.report },
] as const;
export type StopKey = (typeof STOPS)[number]['key'];

/** The stop that an address is at; null for a page beside the stops. */
export const stopIn = (pathname: string): StopKey | null =>
  STOPS.find(({ key }) => pathname.split('/').includes(key))?.key ?? null;

export const stopPath = (study: number, stop: StopKey, question: number | undefined): string =>
  stop === 'import' || question === undefined
    ? `/studies/${study}/import`
    : `/studies/${study}/questions/${question}/${stop}`;
