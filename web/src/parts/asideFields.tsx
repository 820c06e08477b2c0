import type { AsideMarks } from '@yellow-thread/contract';
import { Field } from './field.js';
import { asideFieldsTexts } from './texts.js';

const BRACKETS = ['[]', '()', '{}', '<>'] as const;

/** How probes and the interviewer's words are marked inside answers. */
export function AsideFields({
  asides,
  change,
}: {
  asides: AsideMarks;
  change: (asides: AsideMarks) => void;
}) {
  return (
    <span className="mt-2 flex flex-wrap items-end gap-x-6 gap-y-2">
      <fieldset className="flex items-center gap-4">
        <legend className="float-left mr-3 font-medium">{asideFieldsTexts.brackets}</legend>
        {BRACKETS.map((pair) => (
          <label key={pair} className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-ink"
              checked={asides.brackets.includes(pair)}
              onChange={(event) =>
                change({
                  ...asides,
                  brackets: event.target.checked
                    ? [...asides.brackets, pair]
                    : asides.brackets.filter((one) => one !== pair),
                })
              }
            />
            {pair[0]} {pair[1]}
          </label>
        ))}
      </fieldset>
      <Field
        label={asideFieldsTexts.linesBegin}
        hint={asideFieldsTexts.separatedCommasLikeInt}
        className="w-72"
        defaultValue={asides.leading.join(', ')}
        onBlur={(event) => {
          const leading = event.target.value
            .split(',')
            .map((mark) => mark.trim())
            .filter((mark) => mark !== '')
            .slice(0, 20);
          if (leading.join() !== asides.leading.join()) change({ ...asides, leading });
        }}
      />
    </span>
  );
}
