import {
  api,
  type Agreement,
  type SecondCoding,
  type ReadingAnswers,
  type ReadingCreate,
  type DisagreementResolution,
} from '@yellow-thread/contract';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './client.js';
import { useSession } from './people.js';
import { asChange, asKeyedChange, FROM_MENTIONS, holdFetches } from './queryClient.js';

const pathOf = (study: number, question: number, reading?: string) =>
  `/api/studies/${study}/questions/${question}/readings${reading ? `/${reading}` : ''}`;

/** The second readings of a question. */
export const useReadings = (study: number, question: number) =>
  useQuery({
    queryKey: ['readings', study, question],
    queryFn: () => call(api.listReadings, { params: { study, question } }),
  });

/** How many answers wait for whoever is here to code them a second time. */
export function useToReadAgain(study: number, question: number): number {
  const me = useSession().data?.account?.id;
  const readings = useReadings(study, question).data?.readings ?? [];
  return readings
    .filter(({ readerId }) => readerId === me)
    .reduce((sum, { size, read }) => sum + size - read, 0);
}

export const useDrawReading = (study: number, question: number) =>
  useMutation({
    ...asChange('readings', 'history'),
    mutationFn: (body: ReadingCreate) =>
      call(api.drawReading, { params: { study, question }, body }),
  });

export const useEndReading = (study: number, question: number) =>
  useMutation({
    ...asChange('readings', 'reading', 'agreement', 'write-up', 'history'),
    mutationFn: (reading: string) => call(api.endReading, { params: { study, question, reading } }),
  });

export const useRemoveReading = (study: number, question: number) =>
  useMutation({
    ...asChange('readings', 'write-up', 'history'),
    mutationFn: (reading: string) =>
      call(api.removeReading, { params: { study, question, reading } }),
  });

const readingKey = (study: number, question: number, reading: string) => [
  'reading',
  study,
  question,
  reading,
];

/** The answers of a reading for its reader, without how they were coded. */
export const useReading = (study: number, question: number, reading: string) =>
  useQuery({
    queryKey: readingKey(study, question, reading),
    queryFn: () => call(api.getReadingAnswers, { params: { study, question, reading } }),
  });

/** Keeps what the reader gave an answer; drawn at once, saved behind. */
export function useSecondCoding(study: number, question: number, reading: string) {
  const client = useQueryClient();
  const key = readingKey(study, question, reading);
  return useMutation({
    ...asKeyedChange('readings', 'write-up', 'history'),
    mutationFn: (body: SecondCoding) =>
      call(api.codeSecondReading, { params: { study, question, reading }, body }),
    onMutate: ({ responseId, codes }) => {
      holdFetches(key);
      client.setQueryData<ReadingAnswers>(
        key,
        (before) =>
          before && {
            answers: before.answers.map((one) =>
              one.responseId === responseId ? { ...one, codes } : one,
            ),
          },
      );
    },
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
}

const agreementKey = (study: number, question: number, reading: string) => [
  'agreement',
  study,
  question,
  reading,
];

/** How far a second reading agrees with the first, or with another reading of the same answers. */
export const useAgreement = (
  study: number,
  question: number,
  reading: string,
  against: string | null,
) =>
  useQuery({
    queryKey: [...agreementKey(study, question, reading), ...(against ? [against] : [])],
    queryFn: () =>
      call(api.getAgreement, {
        params: { study, question, reading },
        ...(against && { query: { against } }),
      }),
  });

/** Settles where the two differ; drawn at once, saved behind. */
export function useResolveDisagreement(study: number, question: number, reading: string) {
  const client = useQueryClient();
  const key = agreementKey(study, question, reading);
  return useMutation({
    ...asChange('answers', 'ledger', ...FROM_MENTIONS),
    mutationFn: (body: DisagreementResolution) =>
      call(api.settleDisagreement, { params: { study, question, reading }, body }),
    onMutate: ({ responseId, codeId, applies }) => {
      holdFetches(key);
      client.setQueryData<Agreement>(
        key,
        (before) =>
          before && {
            ...before,
            differing: before.differing.map((answer) =>
              answer.responseId === responseId
                ? {
                    ...answer,
                    codes: answer.codes.map((one) =>
                      one.codeId === codeId ? { ...one, applies } : one,
                    ),
                  }
                : answer,
            ),
          },
      );
    },
    onError: () => client.invalidateQueries({ queryKey: key }),
  });
}

export const agreementFileAddress = (
  study: number,
  question: number,
  reading: string,
  { format, against }: { format: 'csv' | 'xlsx'; against: string | null },
): string =>
  `${pathOf(study, question, reading)}/files/${format}${against ? `?against=${against}` : ''}`;
