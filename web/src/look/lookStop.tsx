import { useLook } from '../data/report.js';
import { useChangeStudy } from '../data/respondents.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { asCount } from '../lib/numbers.js';
import { PhraseList, WordList } from './termLists.js';
import { lookStopTexts } from './texts.js';

/** A first look: how long the answers are and which words people use, before any coding. */
export function LookStop() {
  const { study, question } = useStudyLocation();
  const look = useLook(study.id, question.id);
  const change = useChangeStudy(study.id);
  if (look.isError) return <PageProblem error={look.error} />;
  if (!look.data) return <Waiting what={lookStopTexts.words} />;
  const { words, phrases, lengths, answered } = look.data;
  const { setAside } = study;
  const keepAside = (list: string[]) => change.mutate({ setAside: list });
  const longestBar = Math.max(1, ...lengths.map((bin) => bin.answers));
  const binName = (place: number) => {
    const from = lengths[place]!.from;
    const next = lengths[place + 1]?.from;
    return next === undefined ? lookStopTexts.more(from) : `${from}–${next - 1}`;
  };
  return (
    <main className="work grid grid-cols-[260px_minmax(0,1fr)] content-start gap-10 px-6 py-6 max-[760px]:grid-cols-1 max-sm:px-4">
      <section aria-labelledby="lengths">
        <h2 id="lengths">{lookStopTexts.howLongAnswers}</h2>
        <table className="mt-3 w-full">
          <thead className="text-left text-soft">
            <tr>
              <th className="pb-1 font-normal">{lookStopTexts.words2}</th>
              <th className="pb-1 pl-3 font-normal">{lookStopTexts.answers}</th>
            </tr>
          </thead>
          <tbody className="figures">
            {lengths.map((bin, place) => (
              <tr key={bin.from}>
                <td className="whitespace-nowrap py-1">{binName(place)}</td>
                <td className="w-full pl-3">
                  <span className="flex items-center gap-2">
                    <span
                      className="block h-3 bg-soft"
                      style={{ width: `${(110 * bin.answers) / longestBar}px` }}
                    />
                    {asCount(bin.answers)}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-4 text-soft">{lookStopTexts.outSaySomething(answered)}</p>
      </section>
      <section aria-labelledby="words" className="min-w-0">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h2 id="words">{lookStopTexts.wordsPeopleUse}</h2>
          <span className="text-soft">{lookStopTexts.wordsQuestionSetAside}</span>
        </div>
        {setAside.length > 0 && (
          <p className="mt-2 flex flex-wrap items-center gap-2">
            <span className="text-soft">{lookStopTexts.alsoSetAside}</span>
            {setAside.map((word) => (
              <Button
                key={word}
                look="plain"
                className="!px-2 !py-0.5"
                onClick={() => keepAside(setAside.filter((one) => one !== word))}
                aria-label={lookStopTexts.bringBack(word)}
              >
                <s>{word}</s>
              </Button>
            ))}
          </p>
        )}
        <WordList words={words} onSetAside={(word) => keepAside([...setAside, word])} />
      </section>
      {phrases.length > 0 && (
        <section aria-labelledby="phrases" className="col-start-2 min-w-0 max-[760px]:col-start-1">
          <div className="flex flex-wrap items-baseline justify-between gap-3">
            <h2 id="phrases">{lookStopTexts.phrases}</h2>
            <span className="text-soft">{lookStopTexts.wordsMeetMoreThan}</span>
          </div>
          <PhraseList phrases={phrases} />
        </section>
      )}
    </main>
  );
}
