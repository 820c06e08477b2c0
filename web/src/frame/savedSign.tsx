import { useMutationState } from '@tanstack/react-query';
import { asProblem } from '../data/client.js';
import { CHANGE } from '../data/queryClient.js';

/** Whether everything that the person did is kept. */
export function SavedSign() {
  const states = useMutationState({
    filters: { mutationKey: CHANGE },
    select: ({ state }) => ({ status: state.status, error: state.error, at: state.submittedAt }),
  });
  const saving = states.some((state) => state.status === 'pending');
  const last = states.reduce<(typeof states)[number] | null>(
    (latest, state) => (!latest || state.at >= latest.at ? state : latest),
    null,
  );
  const failed = !saving && last?.status === 'error';
  return (
    <span
      role="status"
      className={`w-20 truncate text-right ${failed ? 'text-brick' : 'text-soft'}`}
      title={failed ? asProblem(last?.error).sentence : undefined}
    >
      {saving ? 'saving …' : failed ? 'not saved' : 'saved'}
    </span>
  );
}
