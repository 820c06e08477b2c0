import type { AnswerHelp, HelpRequest } from '@yellow-thread/core/assistant';
import type { SharedVectors } from '../sentences/index.js';
import type { Threads } from '../jobs/index.js';

/** What an assistant is asked: an answer with all that it may look at, and nothing that tells who wrote it. */
export interface AssistantRequest extends HelpRequest {
  /** Sentence vectors of the texts in it; null where nothing is read for meaning. */
  vectors: SharedVectors | null;
}

/** Whoever helps with answers that are hard to code. */
export interface Assistant {
  /** What people are told of it. */
  name: string;
  help(request: AssistantRequest): Promise<AnswerHelp>;
}

/** What ships with the product: it looks at what this study coded before, on this machine. */
export const localAssistant = (threads: Threads): Assistant => ({
  name: 'this machine',
  help: (request) => threads.run('helpWithAnswer', request),
});
