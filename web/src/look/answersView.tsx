import { Copy } from 'lucide-react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { useDrawnCodebook } from '../data/codebook.js';
import { useAnswersOf, useRepresentatives } from '../data/look.js';
import { useDrawer } from '../frame/drawer.js';
import { useAddressPart } from '../frame/address.js';
import { stopPath, useStudyLocation } from '../frame/studyLocation.js';
import { asPercent } from '../lib/numbers.js';
import { Button } from '../parts/button.js';
import { ProblemNote, Waiting } from '../parts/notices.js';
import { CodeList } from '../studyParts/codeList.js';
import { QuoteToggle } from '../studyParts/quoteToggle.js';
import { AnswerList } from './answerList.js';
import { ClusterList } from './clusterList.js';
import { useCompared } from './compared.js';
import { ComparedChoice } from './comparedChoice.js';
import { answersViewTexts as texts } from './texts.js';

/** What people say, laid out: the few answers that stand for most, and answers gathered by likeness. */
export function AnswersView() {
  const { question } = useStudyLocation();
  return (
    <div className="flex flex-col gap-8 px-6 py-5 max-sm:px-4">
      <Typical key={`typical ${question.id}`} />
      <ClusterList key={`clusters ${question.id}`} />
    </div>
  );
}

/** Summaries that are quotes: no sentence that nobody said. */
function Typical() {
  const { study, question } = useStudyLocation();
  const compared = useCompared(study);
  const [filter, setFilter] = useAddressPart('filter');
  const found = useRepresentatives(study.id, question.id, {
    rule: compared?.rule ?? null,
    filter: filter ?? '',
  });
  const openDrawer = useDrawer();
  const codebook = useDrawnCodebook(study.id);
  const coded = useAnswersOf(
    study.id,
    question.id,
    found.data?.chosen.map(({ answer }) => answer.id) ?? [],
  );
  const mentionsOf = (id: number) =>
    coded.data?.pages[0]?.answers.find((one) => one.id === id)?.mentions ?? [];
  return (
    <section aria-label={texts.typical}>
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <h2>{texts.typical}</h2>
        <ComparedChoice study={study} label={texts.whose} nobody={texts.everybody} />
        {filter !== null && (
          <span className="flex items-center gap-3 text-[13px]">
            <Link
              to={`${stopPath(study.id, 'code', question.id)}?${filter}`}
              className="min-h-6 underline"
            >
              {texts.filtered}
            </Link>
            <button type="button" className="min-h-6 underline" onClick={() => setFilter(null)}>
              {texts.allAgain}
            </button>
          </span>
        )}
      </div>
      {found.isError ? (
        <ProblemNote error={found.error} />
      ) : !found.data ? (
        <Waiting what={texts.theTypical} />
      ) : (
        <>
          <p className="figures mt-1 max-w-prose text-[13px] text-soft">
            {found.data.answers > 0 &&
              texts.standFor(
                found.data.chosen.length,
                asPercent(found.data.covered / found.data.answers, found.data.answers),
                found.data.answers,
              )}{' '}
            {found.data.isMeaning ? texts.inMeaning : texts.byWords}
          </p>
          <ol className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(min(100%,400px),1fr))] gap-x-10">
            {found.data.chosen.map(({ answer, like }) => (
              <li key={answer.id} className="flex items-start gap-3 border-t border-rule py-2">
                <div className="min-w-0 flex-1">
                  <blockquote className="voice break-words">{answer.text}</blockquote>
                  {codebook && (
                    <CodeList
                      codeIds={mentionsOf(answer.id).map(({ codeId }) => codeId)}
                      codebook={codebook}
                    />
                  )}
                  <QuoteToggle study={study.id} mentions={mentionsOf(answer.id)} />
                </div>
                {like.length === 1 ? (
                  <span className="shrink-0 text-soft">{texts.alone}</span>
                ) : (
                  <button
                    type="button"
                    className="figures min-h-6 shrink-0 underline"
                    onClick={() =>
                      openDrawer({
                        title: texts.likeTitle(answer.text),
                        body: (
                          <AnswerList
                            key={answer.id}
                            study={study.id}
                            question={question.id}
                            ids={like}
                          />
                        ),
                      })
                    }
                  >
                    {texts.like(like.length - 1)}
                  </button>
                )}
                <Button
                  look="plain"
                  className="!p-1.5"
                  aria-label={texts.copy}
                  title={texts.copy}
                  onClick={() =>
                    void navigator.clipboard
                      .writeText(`“${answer.text}”`)
                      .then(() => toast(texts.copied))
                  }
                >
                  <Copy size={14} aria-hidden />
                </Button>
              </li>
            ))}
          </ol>
        </>
      )}
    </section>
  );
}
