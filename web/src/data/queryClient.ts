import { MutationCache, notifyManager, QueryClient } from '@tanstack/react-query';
import { toast } from 'sonner';
import { asProblem, ProblemError } from './client.js';

/** Key of every mutation that changes the study: what the "saved" sign watches. */
export const CHANGE = ['change'];

// what one key did is drawn before the next key is handled, however fast somebody codes
notifyManager.setScheduler(queueMicrotask);

export const queryClient = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 10_000,
      retry: (failures, error) => !(error instanceof ProblemError) && failures < 2,
    },
  },
  mutationCache: new MutationCache({
    onError: (error, _variables, _context, mutation) => {
      if (mutation.options.mutationKey?.[0] === CHANGE[0])
        toast.error(`Not saved: ${asProblem(error).sentence}`);
      if (error instanceof ProblemError && error.status === 401)
        void queryClient.invalidateQueries({ queryKey: ['session'] });
    },
  }),
});
