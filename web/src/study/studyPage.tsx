import type { Question, StudyDetail } from '@yellow-thread/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import {
  useChangeNoAnswers,
  useChangeQuestion,
  useChangeStudy,
  useOrderQuestions,
} from '../data/respondents.js';
import { useStudyDetail } from '../frame/studyLocation.js';
import { SaveStatus } from '../frame/saveStatus.js';
import { AsideFields } from '../parts/asideFields.js';
import { Button } from '../parts/button.js';
import { EditedText } from '../parts/editedText.js';
import { TextField } from '../parts/field.js';
import { moved, MoveButtons } from '../parts/moveButtons.js';
import { GlossaryList } from '../assistant/glossaryList.js';
import { MergeCopy } from '../studyFile/mergeCopy.js';
import { SaveCopy } from '../studyFile/saveCopy.js';
import { EndStudy } from './endStudy.js';
import { studyPageTexts } from './texts.js';

/** What the study is for, its questions, and what holds for all its answers. */
export function StudyPage() {
  const study = useStudyDetail();
  const change = useChangeStudy(study.id);
  return (
    <main className="work px-8 py-6 max-sm:px-4">
      <div className="flex max-w-3xl flex-col gap-8">
        <header className="flex items-baseline justify-between">
          <h1>{studyPageTexts.study}</h1>
          <SaveStatus />
        </header>
        <section className="flex flex-col gap-3">
          <EditedText
            label={studyPageTexts.name}
            value={study.name}
            rows={1}
            maxLength={120}
            required
            onSave={(_, name) => change.mutate({ name })}
          />
          <EditedText
            label={studyPageTexts.purpose}
            hint={studyPageTexts.researchQuestionSentenceTwo}
            value={study.purpose}
            rows={3}
            maxLength={4000}
            onSave={(_, purpose) => change.mutate({ purpose })}
          />
        </section>
        {study.questions.length > 0 && <Questions study={study} />}
        <NoAnswerList key={JSON.stringify(study.noAnswers)} study={study} />
        <section aria-labelledby="asides">
          <h2 id="asides">{studyPageTexts.interviewersWordsInsideAnswers}</h2>
          <p className="max-w-prose text-soft">{studyPageTexts.whatMarkedSaidSomebody}</p>
          <AsideFields
            key={JSON.stringify(study.asides)}
            asides={study.asides}
            change={(asides) => change.mutate({ asides })}
          />
        </section>
        <GlossaryList study={study.id} />
        <SaveCopy study={study.id} />
        <MergeCopy study={study} />
        {study.role === 'owner' && <EndStudy study={study} />}
      </div>
    </main>
  );
}

function Questions({ study }: { study: StudyDetail }) {
  const order = useOrderQuestions(study.id);
  const ids = study.questions.map((question) => question.id);
  return (
    <section aria-labelledby="questions">
      <h2 id="questions">{studyPageTexts.questions}</h2>
      <p className="text-soft">{studyPageTexts.wordingAskedShortLabel}</p>
      <ol className="mt-2">
        {study.questions.map((question, q) => (
          <li key={question.id} className="flex items-start gap-3 border-t border-rule py-3">
            <span className="pt-6">
              <MoveButtons
                what={question.label}
                index={q}
                count={study.questions.length}
                disabled={order.isPending}
                onMove={(from, to) => order.mutate(moved(ids, from, to))}
              />
            </span>
            <QuestionFields study={study.id} question={question} />
          </li>
        ))}
      </ol>
    </section>
  );
}

function QuestionFields({ study, question }: { study: number; question: Question }) {
  const change = useChangeQuestion(study);
  return (
    <span className="flex min-w-0 flex-1 flex-col gap-2">
      <EditedText
        label={studyPageTexts.wording}
        value={question.wording}
        rows={2}
        maxLength={500}
        required
        className="font-serif"
        onSave={(_, wording) => change.mutate({ id: question.id, wording })}
      />
      <span className="flex flex-wrap items-end justify-between gap-x-4">
        <span className="w-72 max-w-full">
          <EditedText
            label={studyPageTexts.shortLabel}
            value={question.label}
            rows={1}
            maxLength={120}
            required
            onSave={(_, label) => change.mutate({ id: question.id, label })}
          />
        </span>
        <span className="figures pb-2 text-soft">
          {studyPageTexts.asked(question.answered, question.asked)}
          {question.of && studyPageTexts.whatOther(question.of)}
        </span>
      </span>
    </span>
  );
}

/** The study's list of what says nothing; a change sorts the responses again. */
function NoAnswerList({ study }: { study: StudyDetail }) {
  const change = useChangeNoAnswers(study.id);
  const [text, setText] = useState(study.noAnswers.join('\n'));
  const lines = [
    ...new Set(
      text
        .split('\n')
        .map((line) => line.trim().slice(0, 80))
        .filter((line) => line !== ''),
    ),
  ];
  const changed = JSON.stringify(lines) !== JSON.stringify(study.noAnswers);
  return (
    <section aria-labelledby="no-answer-list" className="flex flex-col gap-2">
      <h2 id="no-answer-list">{studyPageTexts.whatCountsNoAnswer}</h2>
      <TextField
        label={studyPageTexts.oneLineCasePunctuation}
        rows={6}
        className="font-serif"
        value={text}
        onChange={(event) => setText(event.target.value)}
        hint={studyPageTexts.blankResponsesNeverCount}
      />
      <Button
        className="self-start"
        disabled={!changed || change.isPending}
        onClick={() =>
          change.mutate(lines, {
            onSuccess: ({ becameAnswers, becameNoAnswers, keptCoded }) =>
              toast(studyPageTexts.nowCountNoAnswer(becameNoAnswers, becameAnswers, keptCoded)),
          })
        }
      >
        {studyPageTexts.sortResponsesList}
      </Button>
    </section>
  );
}
