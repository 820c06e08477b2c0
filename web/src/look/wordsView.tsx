import { useLook } from '../data/look.js';
import { useChangeStudy } from '../data/respondents.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { PageProblem, Waiting } from '../parts/notices.js';
import { asCount } from '../lib/numbers.js';
import { StruckWords } from './struckWords.js';
import { PhraseList, WordList } from './termLists.js';
import { wordsViewTexts } from './texts.js';

/** How long the answers are, and which words and phrases people use. */
export function WordsView() {
  const { study, question } = useStudyLocation();
  const look = useLook(study.id, question.id);
  const change = useChangeStudy(study.id);
  if (look.isError) return <PageProblem error={look.error} />;
  if (!look.data) return <Waiting what={wordsViewTexts.words} />;
  const { words, phrases, lengths, answered } = look.data;
  const { setAside } = study;
  const keepAside = (list: string[]) => change.mutate({ setAside: list });
  const longestBar = Math.max(1, ...lengths.map((bin) => bin.answers));
  const binName = (place: number) => {
    const from = lengths[place]!.from;
    const next = lengths[place + 1]?.from;
    return next === undefined ? wordsViewTexts.more(from) : `${from}–${next - 1}`;
  };
  return (
    <div className="grid grid-cols-[260px_minmax(0,1fr)] content-start gap-10 px-6 py-6 max-[760px]:grid-cols-1 max-sm:px-4">
      <section aria-labelledby="lengths">
        <h2 id="lengths">{wordsViewTexts.howLongAnswers}</h2>
        <table className="mt-3 w-full">
          <thead className="text-left text-soft">
            <tr>
              <th className="pb-1 font-normal">{wordsViewTexts.words2}</th>
              <th className="pb-1 pl-3 font-normal">{wordsViewTexts.answers}</th>
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
        <p className="mt-4 text-soft">{wordsViewTexts.outSaySomething(answered)}</p>
      </section>
      <section aria-labelledby="words" className="min-w-0">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h2 id="words">{wordsViewTexts.wordsPeopleUse}</h2>
          <span className="text-soft">{wordsViewTexts.wordsQuestionSetAside}</span>
        </div>
        <StruckWords
          label={wordsViewTexts.alsoSetAside}
          words={setAside}
          onBringBack={(word) => keepAside(setAside.filter((one) => one !== word))}
        />
        <WordList words={words} onSetAside={(word) => keepAside([...setAside, word])} />
      </section>
      {phrases.length > 0 && (
        <section aria-labelledby="phrases" className="col-start-2 min-w-0 max-[760px]:col-start-1">
          <div className="flex flex-wrap items-baseline justify-between gap-3">
            <h2 id="phrases">{wordsViewTexts.phrases}</h2>
            <span className="text-soft">{wordsViewTexts.wordsMeetMoreThan}</span>
          </div>
          <PhraseList phrases={phrases} />
        </section>
      )}
    </div>
  );
}
