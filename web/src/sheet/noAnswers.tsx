import type { AsideMarks, SheetCheck, SheetSettings } from '@yellow-thread/contract';
import { countsAsNoAnswer, decideNoAnswer, noAnswerKey } from '@yellow-thread/core/sheet';
import { useState } from 'react';
import { Button } from '../parts/button.js';
import { AsideFields } from '../parts/asideFields.js';
import { Field } from '../parts/field.js';
import { asCount } from '../lib/numbers.js';
import { noAnswersTexts } from './texts.js';

/** Short responses that may say nothing, for the researcher to confirm, question by question. */
export function NoAnswers({
  check,
  settings,
  change,
}: {
  check: SheetCheck;
  settings: SheetSettings;
  change: (part: Partial<SheetSettings>) => void;
}) {
  return (
    <section aria-labelledby="no-answers">
      <h2 id="no-answers">{noAnswersTexts.whatCountsNoAnswer}</h2>
      <p className="max-w-prose text-soft">{noAnswersTexts.responsesSayNothingKept}</p>
      {check.questions
        .filter((question) => question.proposed.length > 0)
        .map((question) => (
          <fieldset key={question.wording} className="mt-3 border-t border-rule pt-2">
            <legend className="float-left mb-1 w-full font-serif text-[15px]">
              {question.wording}
            </legend>
            <span className="clear-both flex flex-wrap gap-x-5 gap-y-1">
              {question.proposed.map(({ text, count }) => (
                <label key={text} className="inline-flex items-center gap-2">
                  <input
                    type="checkbox"
                    className="size-4 accent-ink"
                    checked={countsAsNoAnswer(settings, question.wording, text)}
                    disabled={noAnswerKey(text) === ''}
                    onChange={({ target }) =>
                      change(
                        decideNoAnswer({
                          settings,
                          questions: check.questions,
                          question: question.wording,
                          text,
                          isAnswer: !target.checked,
                        }),
                      )
                    }
                  />
                  <span className="font-serif text-[15px]">{text}</span>
                  <span className="figures text-soft">{asCount(count)}</span>
                </label>
              ))}
            </span>
          </fieldset>
        ))}
      <MoreWords settings={settings} change={change} />
      <Asides asides={settings.asides} change={(asides) => change({ asides })} />
    </section>
  );
}

function MoreWords({
  settings,
  change,
}: {
  settings: SheetSettings;
  change: (part: Partial<SheetSettings>) => void;
}) {
  const [text, setText] = useState('');
  const { noAnswers } = settings;
  return (
    <details className="mt-3 border-t border-rule pt-2">
      <summary>{noAnswersTexts.studysListWhatSays(noAnswers.length)}</summary>
      <form
        className="mt-2 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          const written = text.trim();
          if (written && !noAnswers.includes(written))
            change({ noAnswers: [...noAnswers, written] });
          setText('');
        }}
      >
        <Field
          label={noAnswersTexts.another}
          maxLength={80}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <Button type="submit">{noAnswersTexts.addList}</Button>
      </form>
      <ul className="mt-2 flex flex-wrap gap-2">
        {noAnswers.map((one) => (
          <li key={one} className="rounded border border-rule bg-card pl-2">
            <span className="font-serif">{one}</span>
            <Button
              look="bare"
              className="px-2 py-0.5"
              aria-label={noAnswersTexts.takeOffList(one)}
              onClick={() => change({ noAnswers: noAnswers.filter((other) => other !== one) })}
            >
              ×
            </Button>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** How the interviewer's words are marked, folded away while nothing is. */
function Asides({ asides, change }: { asides: AsideMarks; change: (asides: AsideMarks) => void }) {
  return (
    <details
      className="mt-3 border-t border-rule pt-2"
      open={asides.brackets.length + asides.leading.length > 0}
    >
      <summary>{noAnswersTexts.interviewersWordsInsideAnswers}</summary>
      <p className="mt-1 max-w-prose text-soft">{noAnswersTexts.whatMarkedSaidSomebody}</p>
      <AsideFields asides={asides} change={change} />
    </details>
  );
}
