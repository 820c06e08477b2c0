import { useState } from 'react';
import { usePutTerm } from '../data/assistant.js';
import { Button } from '../parts/button.js';
import { Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { explainTermTexts as texts } from './texts.js';

/** Explains a word in the study's glossary. */
export function ExplainTerm({ study }: { study: number }) {
  const put = usePutTerm(study);
  const [term, setTerm] = useState('');
  const [meaning, setMeaning] = useState('');
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        put.mutate(
          { id: crypto.randomUUID(), term, meaning },
          {
            onSuccess: () => {
              setTerm('');
              setMeaning('');
            },
          },
        );
      }}
    >
      <Field
        label={texts.term}
        className="w-32"
        maxLength={60}
        value={term}
        onChange={({ target }) => setTerm(target.value)}
      />
      <Field
        label={texts.meaning}
        className="min-w-0 flex-1"
        maxLength={500}
        value={meaning}
        onChange={({ target }) => setMeaning(target.value)}
      />
      <Button type="submit" disabled={term.trim() === '' || meaning.trim() === ''}>
        {texts.add}
      </Button>
      {put.isError && <ProblemNote error={put.error} />}
    </form>
  );
}
