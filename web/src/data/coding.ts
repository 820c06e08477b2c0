import {
  doneSchema,
  ledgerPageSchema,
  type Codebook,
  type CodeCreate,
  type LedgerAnswer,
  type LedgerPage,
  type LedgerShow,
  type Mention,
} from '@yellow-thread/contract';
import {
  useInfiniteQuery,
  useMutation,
  useQueryClient,
  type InfiniteData,
} from '@tanstack/react-query';
import { call } from './client.js';
import { codebookKey, expectedCode } from './codebook.js';
import { asChange } from './queryClient.js';

const PAGE = 100;

export const useLedger = (study: number, question: number, show: LedgerShow, words: string) =>
  useInfiniteQuery({
    queryKey: ['ledger', study, question, show, words],
    queryFn: ({ pageParam, signal }) =>
      call(`/api/studies/${study}/questions/${question}/ledger`, {
        query: { show, words, after: pageParam, limit: PAGE },
        signal,
        reply: ledgerPageSchema,
      }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (last) => last.next ?? undefined,
  });

/** What a person does while coding; each is drawn at once and saved behind. */
export type CodingChange =
  | { do: 'add'; mention: Mention; newCode?: CodeCreate }
  | { do: 'remove'; mention: Mention }
  | { do: 'settle'; responseId: number; settled: boolean };

export function useCode(study: number, question: number) {
  const client = useQueryClient();
  const ledgers = { queryKey: ['ledger', study, question] };
  return useMutation({
    ...asChange(
      'study',
      'codebook',
      'training',
      'reviews',
      'review',
      'suggestions',
      'report',
      'behind',
    ),
    mutationFn: (change: CodingChange) => send(study, change),
    onMutate: async (change) => {
      await client.cancelQueries(ledgers);
      client.setQueriesData<InfiniteData<LedgerPage>>(ledgers, (pages) =>
        pages ? editPages(pages, change) : pages,
      );
      client.setQueryData<Codebook>(codebookKey(study), (codebook) =>
        codebook ? recount(study, codebook, change) : codebook,
      );
    },
    onError: () => client.invalidateQueries(ledgers),
  });
}

function send(study: number, change: CodingChange) {
  const base = `/api/studies/${study}`;
  const reply = doneSchema;
  switch (change.do) {
    case 'add': {
      const { id, responseId, codeId, start, end } = change.mention;
      const body = { id, responseId, codeId, start, end, newCode: change.newCode };
      return call(`${base}/mentions`, { method: 'POST', body, reply });
    }
    case 'remove':
      return call(`${base}/mentions/${change.mention.id}`, { method: 'DELETE', reply });
    case 'settle':
      return call(`${base}/responses/${change.responseId}/settlement`, {
        method: 'PUT',
        body: { settled: change.settled },
        reply,
      });
  }
}

function editPages(pages: InfiniteData<LedgerPage>, change: CodingChange) {
  const target = change.do === 'settle' ? change.responseId : change.mention.responseId;
  return {
    ...pages,
    pages: pages.pages.map((page) =>
      page.answers.some((answer) => answer.id === target)
        ? {
            ...page,
            answers: page.answers.map((answer) =>
              answer.id === target ? editAnswer(answer, change) : answer,
            ),
          }
        : page,
    ),
  };
}

function editAnswer(answer: LedgerAnswer, change: CodingChange): LedgerAnswer {
  switch (change.do) {
    case 'add':
      return { ...answer, mentions: [...answer.mentions, change.mention] };
    case 'remove':
      return {
        ...answer,
        mentions: answer.mentions.filter((mention) => mention.id !== change.mention.id),
      };
    case 'settle':
      return { ...answer, settled: change.settled };
  }
}

/** Counts as they will be; people only roughly until the server has counted. */
function recount(study: number, codebook: Codebook, change: CodingChange): Codebook {
  if (change.do === 'settle') return codebook;
  const step = change.do === 'add' ? 1 : -1;
  const isNew =
    change.do === 'add' &&
    change.newCode &&
    !codebook.codes.some((code) => code.id === change.newCode!.id);
  const codes = isNew ? [...codebook.codes, expectedCode(study, change.newCode!)] : codebook.codes;
  return {
    ...codebook,
    codes: codes.map((code) =>
      code.id === change.mention.codeId
        ? { ...code, mentions: code.mentions + step, people: Math.max(0, code.people + step) }
        : code,
    ),
  };
}
