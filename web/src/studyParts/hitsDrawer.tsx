import type { CodeHits, Hit, StudyDetail } from '@yellow-thread/contract';
import { splitAtPassages } from '@yellow-thread/core/coding';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { CodePicker } from './codePicker.js';
import { useDrawnCodebook } from '../data/codebook.js';
import { useCodeHits, useHits } from '../data/hits.js';
import { useDrawer } from '../frame/drawer.js';
import { Choice } from '../parts/field.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { CodeList } from './codeList.js';
import { hitsDrawerTexts } from './texts.js';

const places: [CodeHits['on'], string][] = [
  ['line', hitsDrawerTexts.lineStands],
  ['passage', hitsDrawerTexts.wordsThemselves],
  ['answer', hitsDrawerTexts.wholeAnswer],
];
const SHOWN = 200;

/**
 * Every place where words stand, and one code for all of them that are ticked.
 *
 * @param toCode where they can be read in Code; left out there
 */
export function HitsDrawer({
  study,
  question,
  query,
  toCode,
}: {
  study: StudyDetail;
  question: number;
  query: string;
  toCode?: string;
}) {
  const hits = useHits(study.id, question, query);
  const codebook = useDrawnCodebook(study.id);
  const code = useCodeHits(study.id, question);
  const openDrawer = useDrawer();
  const [on, setOn] = useState<CodeHits['on']>('line');
  // what is removed; all others are in
  const [out, setOut] = useState<ReadonlySet<number>>(new Set());
  if (hits.isError) return <ProblemNote error={hits.error} />;
  if (!hits.data || !codebook) return <Waiting what={hitsDrawerTexts.everyPlace} />;
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
          toast(hitsDrawerTexts.codedCtrlZTakes(mentions));
          openDrawer(null);
        },
      },
    );
  return (
    <div className="flex flex-col gap-4">
      <p>
        <span className="figures">{hitsDrawerTexts.placeCounted(found.hits)}</span>{' '}
        {hitsDrawerTexts.in(found.answers)}
        {answers.length < found.answers && hitsDrawerTexts.firstCanCodedOnce(answers.length)}
        {hitsDrawerTexts.themTicked(ticked.length)}{' '}
        {toCode && (
          <Link to={toCode} className="underline" onClick={() => openDrawer(null)}>
            {hitsDrawerTexts.readThemCode}
          </Link>
        )}
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <Choice
          label={hitsDrawerTexts.codeRests}
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
          label={hitsDrawerTexts.codeAllTicked}
          placeholder={hitsDrawerTexts.codeAllTicked2}
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
              aria-label={hitsDrawerTexts.codeAnswer(answer.externalId)}
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
        <p className="text-soft">{hitsDrawerTexts.firstShownWhatApplied(SHOWN, answers.length)}</p>
      )}
    </div>
  );
}
