import { useMutationState } from '@tanstack/react-query';
import { asProblem } from '../lib/problem.js';
import { useConnected } from '../data/events.js';
import { CHANGE } from '../data/queryClient.js';
import { saveStatusTexts } from './texts.js';

/** Whether everything that the person did is kept. */
export function SaveStatus() {
  const states = useMutationState({
    filters: { mutationKey: CHANGE },
    select: ({ state }) => ({
      status: state.status,
      error: state.error,
      at: state.submittedAt,
      // sent again until the server answers
      isRetried: state.status === 'pending' && state.failureCount > 0,
    }),
  });
  const connected = useConnected();
  const waiting = states.filter((state) => state.status === 'pending').length;
  const saving = waiting > 0;
  const last = states.reduce<(typeof states)[number] | null>(
    (latest, state) => (!latest || state.at >= latest.at ? state : latest),
    null,
  );
  const failed = !saving && last?.status === 'error';
  if (!connected || states.some((state) => state.isRetried))
    return (
      <span role="status" className="text-right text-brick">
        {waiting > 0 ? saveStatusTexts.waiting(waiting) : saveStatusTexts.noConnection}
      </span>
    );
  return (
    <span
      role="status"
      className={`w-20 truncate text-right ${failed ? 'text-brick' : 'text-soft'}`}
      title={failed ? asProblem(last?.error).sentence : undefined}
    >
      {saving ? saveStatusTexts.saving : failed ? saveStatusTexts.saved : saveStatusTexts.saved2}
    </span>
  );
}
