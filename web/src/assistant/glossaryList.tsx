import { useGlossary, useRemoveTerm } from '../data/assistant.js';
import { ExplainTerm } from './explainTerm.js';
import { glossaryListTexts as texts } from './texts.js';

/** The study's own words, with what they mean. */
export function GlossaryList({ study }: { study: number }) {
  const glossary = useGlossary(study);
  const remove = useRemoveTerm(study);
  return (
    <section aria-labelledby="glossary" className="flex flex-col gap-2">
      <h2 id="glossary">{texts.glossary}</h2>
      <p className="max-w-prose text-soft">{texts.why}</p>
      <dl>
        {glossary.data?.terms.map(({ id, term, meaning }) => (
          <div key={id} className="flex items-baseline gap-3 border-b border-rule py-1">
            <dt className="w-32 shrink-0 break-words font-medium">{term}</dt>
            <dd className="min-w-0 flex-1 break-words">{meaning}</dd>
            <dd>
              <button
                type="button"
                className="min-h-6 text-[13px] underline"
                aria-label={texts.removeTerm(term)}
                onClick={() => remove.mutate(id)}
              >
                {texts.remove}
              </button>
            </dd>
          </div>
        ))}
      </dl>
      <ExplainTerm study={study} />
    </section>
  );
}
