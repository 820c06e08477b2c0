import type { CodeHits, Hit, StudyDetail } from '@yellow-thread/contract';
import { splitAtPassages } from '@yellow-thread/core/coding';
import { useState } from 'react';
import { toast } from 'sonner';
import { CodePicker } from '../parts/codePicker.js';
import { useDrawnCodebook } from '../data/codebook.js';
import { useCodeHits, useHits } from '../data/hits.js';
import { useDrawer } from '../frame/drawer.js';
import { Choice } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { asCount, counted } from '../parts/numbers.js';
import { CodeList } from '../parts/codeList.js';

const places: [CodeHits['on'], string][] = [
  ['line', 'the line that it stands in'],
  ['passage', 'the words themselves'],
  ['answer', 'the whole answer'],
];
const SHOWN = 200;

/** Every place where words stand, and one code for all of them that are ticked. */
export function HitsDrawer({
  study,
  question,
  query,
}: {
  study: StudyDetail;
  question: number;
  query: string;
}) {
  const hits = useHits(study.id, question, query);
  const codebook = useDrawnCodebook(study.id);
  const code = useCodeHits(study.id, question);
  const openDrawer = useDrawer();
  const [on, setOn] = useState<CodeHits['on']>('line');
  // what is taken out; all others are in
  const [out, setOut] = useState<ReadonlySet<number>>(new Set());
  if (hits.isError) return <ProblemNote error={hits.error} />;
  if (!hits.data || !codebook) return <Waiting what="every place" />;
  const { answers, found } = hits.data;
  const ticked = answers.filter((answer) => !out.has(answer.id));
  const chosen = ticked.flatMap(({ id, hits }): Hit[] =>
    hits.map(({ start, end }) => ({ responseId: id, start, end })),
  );
  const apply = (codeId: string, newCode?: CodeHits['newCode']) =>
    code.mutate(
      { codeId, on, hits: chosen, ...(newCode && { newCode }) },
      {
        onSuccess: ({ mentions }) => {
          toast(`Coded ${counted(mentions, 'place')}. Ctrl Z takes all of it back.`);
          openDrawer(null);
        },
      },
    );
  return (
    <div className="flex flex-col gap-4">
      <p>
        <span className="figures">{counted(found.hits, 'place')}</span> in{' '}
        {counted(found.answers, 'answer')}
        {answers.length < found.answers &&
          `; the first ${asCount(answers.length)} can be coded at once`}
        . {asCount(ticked.length)} of them ticked.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <Choice
          label="The code rests on"
          value={on}
          onChange={(event) => setOn(event.target.value as CodeHits['on'])}
        >
          {places.map(([place, name]) => (
            <option key={place} value={place}>
              {name}
            </option>
          ))}
        </Choice>
        <CodePicker
          label="Code for all that is ticked"
          placeholder="code for all ticked …"
          className="w-64"
          codes={codebook.codes.filter((one) => !one.archived)}
          onPick={({ id }) => apply(id)}
          onNew={(name) => {
            const id = crypto.randomUUID();
            apply(id, { id, name, themeId: null });
          }}
        />
      </div>
      {code.isError && <ProblemNote error={code.error} />}
      <ul className="flex flex-col gap-2">
        {answers.slice(0, SHOWN).map((answer) => (
          <li key={answer.id} className="flex items-baseline gap-2 border-b border-rule pb-2">
            <input
              type="checkbox"
              aria-label={`Code the answer of ${answer.externalId}`}
              checked={!out.has(answer.id)}
              onChange={({ target }) => {
                const next = new Set(out);
                if (target.checked) next.delete(answer.id);
                else next.add(answer.id);
                setOut(next);
              }}
            />
            <div>
              <p className="voice">
                {splitAtPassages({ start: 0, end: answer.text.length }, answer.hits).map((part) => (
                  <span
                    key={part.start}
                    className={part.passages.length > 0 ? 'bg-wash font-semibold' : undefined}
                  >
                    {answer.text.slice(part.start, part.end)}
                  </span>
                ))}
              </p>
              <CodeList codeIds={answer.codeIds} codebook={codebook} />
            </div>
          </li>
        ))}
      </ul>
      {answers.length > SHOWN && (
        <p className="text-soft">
          The first {SHOWN} are shown; what is applied goes to all {asCount(answers.length)} that
          are ticked.
        </p>
      )}
    </div>
  );
}
