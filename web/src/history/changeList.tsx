import { useChanges } from '../data/history.js';
import { Button } from '../parts/button.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { asDate, counted } from '../lib/numbers.js';
import { changeListTexts } from './texts.js';

const kinds: Record<string, [one: string, many?: string]> = {
  mention: ['mention'],
  settlement: [changeListTexts.answerSettledOpened, changeListTexts.answersSettledOpened],
  suggestion: ['suggestion'],
  code: ['code'],
  theme: ['theme'],
  bundle: ['bundle'],
  answer_cluster: [changeListTexts.cluster, changeListTexts.clusters],
  note: ['note'],
  respondent: ['respondent'],
  category: ['category', 'categories'],
  variable: ['variable'],
  question: ['question'],
};

/** Changes, newest first. */
export function ChangeList({ study, ...of }: { study: number; code?: string; by?: number }) {
  const changes = useChanges(study, of);
  if (changes.isError) return <ProblemNote error={changes.error} />;
  if (!changes.data) return <Waiting what={changeListTexts.history} />;
  const all = changes.data.pages.flatMap((page) => page.changes);
  return (
    <>
      {all.length === 0 && <p className="text-soft">{changeListTexts.nothingChangedYet}</p>}
      <ol className="flex max-w-4xl flex-col">
        {all.map((change) => (
          <li
            key={change.id}
            className="grid grid-cols-[9rem_8rem_minmax(0,1fr)] items-baseline gap-x-4 max-sm:grid-cols-2 max-sm:[&>:last-child]:col-span-2 border-b border-rule py-1.5"
          >
            <span className="figures text-[13px] text-soft">{asDate(change.madeAt)}</span>
            <span className="truncate">{change.by}</span>
            <span
              className={`min-w-0 break-words ${change.undone ? 'text-soft line-through' : ''}`}
            >
              {change.summary}
              <span className="ml-2 text-[13px] text-soft">
                {Object.entries(change.touched)
                  .flatMap(([kind, count]) => {
                    const [one, many] = kinds[kind] ?? [];
                    return one && count > 1 ? [counted(count, one, many)] : [];
                  })
                  .join(', ')}
                {change.undone && changeListTexts.undone}
              </span>
            </span>
          </li>
        ))}
      </ol>
      {changes.hasNextPage && (
        <Button look="bare" className="mt-2" onClick={() => void changes.fetchNextPage()}>
          {changeListTexts.showEarlierOnes}
        </Button>
      )}
    </>
  );
}
