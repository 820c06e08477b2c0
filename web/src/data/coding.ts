import {
  api,
  type Codebook,
  type CodeCreate,
  type LedgerAnswer,
  type LineCut,
  type Mention,
} from '@yellow-thread/contract';
import {
  MutationObserver,
  queryOptions,
  useQueries,
  useQuery,
  useQueryClient,
} from '@tanstack/react-query';
import { useMemo } from 'react';
import { call, prepare, type PreparedRequest } from './client.js';
import { failureKind } from '../lib/problem.js';
import { codebookKey, expectedCode, expectedTheme } from './codebook.js';
import { noteRequest, type NoteChange } from './notes.js';
import { sendKept } from './outbox.js';
import { useSession } from './people.js';
import {
  asKeyedChange,
  FROM_DECISIONS,
  FROM_MENTIONS,
  holdFetches,
  refetchAfterSave,
  queryClient,
} from './queryClient.js';

/** Answers are fetched in blocks of so many. */
export const BLOCK = 50;

const ledgerOptions = (study: number, question: number, filter: string) =>
  queryOptions({
    queryKey: ['ledger', study, question, filter],
    queryFn: ({ signal }) =>
      call(api.getLedger, { params: { study, question }, search: filter, signal }),
    // the list stays as it is while one works through it
    staleTime: Infinity,
    gcTime: 60_000,
    structuralSharing: false,
  });

/** Which answers there are, in order; `filter` is the address's own query. */
export const useLedger = (study: number, question: number, filter: string) =>
  useQuery(ledgerOptions(study, question, filter));

/** Asks for the list again, and for its first answers, while the page that shows them is still on its way. */
export async function fetchLedgerAhead(study: number, question: number, filter: string) {
  const ledger = ledgerOptions(study, question, filter);
  await queryClient.prefetchQuery({ ...ledger, staleTime: 0 });
  const { ids = [] } = queryClient.getQueryData(ledger.queryKey) ?? {};
  if (ids.length > 0)
    await queryClient.prefetchQuery(answersOptions(study, question, ids.slice(0, BLOCK)));
}

const answersOptions = (study: number, question: number, block: readonly number[]) =>
  queryOptions({
    queryKey: ['answers', study, question, block],
    queryFn: async ({ signal }) => {
      const query = { ids: block.join(',') };
      return (await call(api.getAnswers, { params: { study, question }, query, signal })).answers;
    },
    staleTime: Infinity,
    gcTime: 60_000,
  });

/**
 * What stands in the answers of some blocks, by id.
 *
 * @param isWanted whether a block is fetched; of another, what is known already
 */
export function useAnswers({
  study,
  question,
  ids,
  blocks,
  isWanted = () => true,
}: {
  study: number;
  question: number;
  ids: readonly number[];
  blocks: readonly number[];
  isWanted?: (block: number) => boolean | undefined;
}): Map<number, LedgerAnswer> {
  return useQueries({
    queries: blocks.map((block) => ({
      ...answersOptions(study, question, ids.slice(block * BLOCK, (block + 1) * BLOCK)),
      enabled: isWanted(block),
    })),
    combine: byId,
  });
}

const byId = (blocks: { data: LedgerAnswer[] | undefined }[]) =>
  new Map(blocks.flatMap(({ data }) => data ?? []).map((answer) => [answer.id, answer]));

/** What else a respondent wrote, and what was noted of them. */
export const useOtherAnswers = (study: number, respondent: number) =>
  useQuery({
    queryKey: ['others', study, respondent],
    queryFn: () => call(api.getRespondentAnswers, { params: { study, respondent } }),
  });

/** What answers like one were coded with, as it was when one came to it. */
export const useNearCodes = (study: number, response: number) =>
  useQuery({
    queryKey: ['near', study, response],
    queryFn: ({ signal }) => call(api.getNearCodes, { params: { study, response }, signal }),
    staleTime: 10_000,
    gcTime: 10_000,
  });

/** What a person does while coding. */
export type CodingChange =
  | {
      do: 'add';
      mention: Mention;
      newCode?: CodeCreate;
      newTheme?: { id: string; name: string };
      toSame: boolean;
    }
  | { do: 'remove'; mention: Mention; toSame: boolean }
  | { do: 'edit'; from: Mention; to: Mention }
  | {
      do: 'settle';
      responseId: number;
      settled: boolean;
      toSame: boolean;
      /** Whether the models' suggestions were in view. */
      assisted: boolean;
    }
  /** Settles an answer with the suggestions that were left standing. */
  | { do: 'read'; responseId: number; accept: Mention[]; toSame: boolean }
  | { do: 'decide'; mention: Mention; accepted: boolean; toSame: boolean }
  | { do: 'line'; responseId: number; at: number; line: 'split' | 'joined' | 'as_written' }
  | NoteChange;

/**
 * How somebody codes: a change is drawn before this returns, in one with what else its key does, and saved behind.
 * Whether it is saved yet draws nothing here again.
 */
export function useCode(study: number, question: number): (change: CodingChange) => void {
  const client = useQueryClient();
  const account = useSession().data?.account?.id ?? 0;
  return useMemo(() => {
    const blocks = { queryKey: ['answers', study, question] };
    const draw = (change: CodingChange) => {
      // a codebook from before the change would take a code away that was just made
      holdFetches(blocks.queryKey);
      holdFetches(codebookKey(study));
      client.setQueriesData<LedgerAnswer[]>(blocks, (answers) =>
        answers ? editAnswers(answers, change) : answers,
      );
      client.setQueryData<Codebook>(codebookKey(study), (codebook) =>
        codebook ? recount(study, codebook, change) : codebook,
      );
    };
    const saving = new MutationObserver(client, {
      ...asKeyedChange('study', 'training', 'notes', ...FROM_MENTIONS, ...FROM_DECISIONS),
      mutationFn: (change: CodingChange) =>
        sendKept(account, { id: crypto.randomUUID(), ...asRequest(study, question, change) }),
      // while the server does not answer, what was done waits its turn
      retry: (_, error) => failureKind(error) === 'not_answered',
      retryDelay: (failures) => Math.min(5000, 400 * 2 ** failures),
      onError: () => refetchAfterSave(blocks),
      onSuccess: (_, change) => {
        // what was done to answers with the same words the server knows, and the mention of what was accepted
        if (('toSame' in change && change.toSame) || change.do === 'decide' || change.do === 'read')
          refetchAfterSave(blocks);
      },
    });
    return (change) => {
      draw(change);
      // one that is refused is told of by every mutation of the study
      saving.mutate(change).catch(() => {});
    };
  }, [client, account, study, question]);
}

/** The request that makes a change of coding. */
function asRequest(study: number, question: number, change: CodingChange): PreparedRequest {
  switch (change.do) {
    case 'add': {
      const { id, responseId, codeId, start, end } = change.mention;
      const { newCode, newTheme, toSame } = change;
      const body = { id, responseId, codeId, start, end, newCode, newTheme, toSame };
      return prepare(api.addMention, { params: { study }, body });
    }
    case 'remove': {
      const params = { study, mention: change.mention.id };
      return prepare(api.removeMention, { params, query: { toSame: change.toSame } });
    }
    case 'edit': {
      const { from, to } = change;
      const moved = from.start !== to.start || from.end !== to.end;
      const { start, end } = to;
      const passage = start === null || end === null ? null : { start, end };
      const body = {
        ...(from.codeId !== to.codeId && { codeId: to.codeId }),
        ...(from.typical !== to.typical && { typical: to.typical }),
        ...(moved && { passage }),
      };
      return prepare(api.editMention, { params: { study, mention: from.id }, body });
    }
    case 'decide': {
      const { mention, accepted, toSame } = change;
      return prepare(api.decideSuggestion, {
        params: { study, question, code: mention.codeId },
        body: {
          responseId: mention.responseId,
          state: accepted ? 'accepted' : 'refused',
          toSame,
        },
      });
    }
    case 'settle': {
      const { responseId, settled, toSame, assisted } = change;
      const params = { study, response: responseId };
      return prepare(api.settleResponse, { params, body: { settled, toSame, assisted } });
    }
    case 'read': {
      const { responseId, accept, toSame } = change;
      const given = accept.map(({ codeId, start, end }) => ({ codeId, start, end }));
      const params = { study, response: responseId };
      return prepare(api.settleReading, { params, body: { accept: given, toSame } });
    }
    case 'line': {
      const { responseId, at, line } = change;
      return prepare(api.editLine, { params: { study, response: responseId }, body: { at, line } });
    }
    default:
      return noteRequest(study, change);
  }
}

function responseOf(change: CodingChange): number | null {
  switch (change.do) {
    case 'add':
    case 'remove':
    case 'decide':
      return change.mention.responseId;
    case 'edit':
      return change.from.responseId;
    case 'settle':
    case 'read':
    case 'line':
      return change.responseId;
    case 'addNote':
    case 'removeNote':
      return change.note.responseId;
    case 'editNote':
      return change.from.responseId;
  }
}

function editAnswers(answers: LedgerAnswer[], change: CodingChange): LedgerAnswer[] {
  const target = responseOf(change);
  return answers.some((answer) => answer.id === target)
    ? answers.map((answer) => (answer.id === target ? editAnswer(answer, change) : answer))
    : answers;
}

function editAnswer(answer: LedgerAnswer, change: CodingChange): LedgerAnswer {
  switch (change.do) {
    case 'add':
      return { ...answer, mentions: [...answer.mentions, change.mention] };
    case 'remove':
      return { ...answer, mentions: without(answer.mentions, change.mention.id) };
    case 'edit':
      return { ...answer, mentions: replaced(answer.mentions, change.to) };
    case 'decide': {
      const { mention, accepted } = change;
      const suggestions = answer.suggestions.filter((one) => one.codeId !== mention.codeId);
      const mentions = accepted ? [...answer.mentions, mention] : answer.mentions;
      return { ...answer, suggestions, mentions };
    }
    case 'settle':
      return { ...answer, settled: change.settled };
    case 'read':
      return { ...answer, settled: true, mentions: [...answer.mentions, ...change.accept] };
    case 'line': {
      const cut: LineCut = {
        responseId: answer.id,
        at: change.at,
        joined: change.line === 'joined',
      };
      const others = answer.cuts.filter(({ at }) => at !== change.at);
      return { ...answer, cuts: change.line === 'as_written' ? others : [...others, cut] };
    }
    case 'addNote':
      return { ...answer, notes: [...answer.notes, change.note] };
    case 'editNote':
      return { ...answer, notes: replaced(answer.notes, change.to) };
    case 'removeNote':
      return { ...answer, notes: without(answer.notes, change.note.id) };
  }
}

const without = <R extends { id: string }>(records: R[], id: string): R[] =>
  records.filter((record) => record.id !== id);
const replaced = <R extends { id: string }>(records: R[], by: R): R[] =>
  records.map((record) => (record.id === by.id ? by : record));

/** Counts as they will be; people only roughly until the server has counted. */
function recount(study: number, codebook: Codebook, change: CodingChange): Codebook {
  if (change.do === 'edit' && change.from.codeId !== change.to.codeId)
    return counted(counted(codebook, change.from.codeId, -1), change.to.codeId, 1);
  if (change.do === 'decide')
    return change.accepted ? counted(codebook, change.mention.codeId, 1) : codebook;
  if (change.do === 'read')
    return change.accept.reduce((book, { codeId }) => counted(book, codeId, 1), codebook);
  if (change.do === 'remove') return counted(codebook, change.mention.codeId, -1);
  if (change.do !== 'add') return codebook;
  const { newCode, newTheme, mention } = change;
  const isNew = newCode && !codebook.codes.some((code) => code.id === newCode.id);
  const isNewTheme = newTheme && !codebook.themes.some((theme) => theme.id === newTheme.id);
  return counted(
    {
      ...codebook,
      themes: isNewTheme
        ? [...codebook.themes, expectedTheme(study, newTheme, codebook.themes)]
        : codebook.themes,
      codes: isNew ? [...codebook.codes, expectedCode(study, newCode)] : codebook.codes,
    },
    mention.codeId,
    1,
  );
}

const counted = (codebook: Codebook, codeId: string, step: 1 | -1): Codebook => ({
  ...codebook,
  codes: codebook.codes.map((code) =>
    code.id === codeId
      ? { ...code, mentions: code.mentions + step, people: Math.max(0, code.people + step) }
      : code,
  ),
});
