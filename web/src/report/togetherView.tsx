import type { CodesTogether, Question, StudyDetail, TogetherQuery } from '@yellow-thread/contract';
import { ruleNames } from '@yellow-thread/core/report';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { useDrawnCodebook } from '../data/codebook.js';
import { togetherFileAddress, useTogether } from '../data/report.js';
import { useDrawer } from '../frame/drawer.js';
import { Term } from '../help/term.js';
import { Choice } from '../parts/field.js';
import { Menu, MenuFile, MenuTitle } from '../parts/menu.js';
import { EmptyState, PageProblem, Waiting } from '../parts/notices.js';
import { useAddressChoice } from '../frame/address.js';
import { AnswersBehind } from './answersBehind.js';
import { measures, TogetherGrid, type Measure } from './togetherGrid.js';
import { TogetherList } from './togetherList.js';
import { togetherViewTexts } from './togetherTexts.js';

const forms = ['list', 'grid'] as const;
const MOST = 24;
type Code = CodesTogether['codes'][number];

/** Which codes occur in the same answer, or in the same line of it. */
export function TogetherView({ study, question }: { study: StudyDetail; question: Question }) {
  const [form, setForm] = useAddressChoice('as', forms);
  const [inOne, setInOne] = useState<TogetherQuery['inOne']>('answer');
  const [measure, setMeasure] = useState<Measure>('both');
  const [all, setAll] = useState(false);
  const together = useTogether(study.id, question.id, inOne);
  const codebook = useDrawnCodebook(study.id);
  const openDrawer = useDrawer();
  if (together.isError) return <PageProblem error={together.error} />;
  if (!together.data || !codebook) return <Waiting what={togetherViewTexts.codes} />;
  const codes = all ? together.data.codes : together.data.codes.slice(0, MOST);
  const { counts } = together.data;
  const openPair = (one: Code, other: Code) =>
    openDrawer({
      title: togetherViewTexts.with2(one.name, other.name, inOne, togetherViewTexts.oneLine),
      body: (
        <AnswersBehind
          key={one.id + other.id}
          study={study}
          question={question.id}
          query={`by=none&counts=${counts}`}
          cell={{ row: one.id, column: 'total', with: other.id, inOne }}
          codebook={codebook}
          counts={counts}
        />
      ),
    });
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-5 gap-y-2 border-b border-rule px-6 py-2.5">
        <Choice
          label={togetherViewTexts.one}
          value={inOne}
          onChange={(event) => setInOne(event.target.value === 'line' ? 'line' : 'answer')}
        >
          <option value="answer">{togetherViewTexts.answer}</option>
          <option value="line">{togetherViewTexts.lineSettledAnswer}</option>
        </Choice>
        <Choice
          label={togetherViewTexts.as}
          value={form}
          onChange={(event) => setForm(event.target.value === 'grid' ? 'grid' : 'list')}
        >
          {forms.map((one) => (
            <option key={one} value={one}>
              {togetherViewTexts[one]}
            </option>
          ))}
        </Choice>
        {form === 'grid' && (
          <Choice
            label={togetherViewTexts.shown}
            value={measure}
            onChange={(event) => setMeasure(event.target.value as Measure)}
          >
            {Object.entries(measures).map(([key, name]) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </Choice>
        )}
        {form === 'grid' && together.data.codes.length > MOST && (
          <label className="inline-flex items-center gap-2">
            <input type="checkbox" checked={all} onChange={() => setAll((was) => !was)} />{' '}
            {togetherViewTexts.allCodes(together.data.codes.length)}
          </label>
        )}
        <span className="ml-auto">
          <Menu
            name={
              <>
                <Download size={15} aria-hidden /> {togetherViewTexts.files}
              </>
            }
          >
            <MenuTitle>{togetherViewTexts.everyTwoCodesOccur}</MenuTitle>
            {(['xlsx', 'csv'] as const).map((format) => (
              <MenuFile
                key={format}
                name={format === 'xlsx' ? togetherViewTexts.workbookXlsx : togetherViewTexts.csv}
                about="with counts, Jaccard, phi and lift"
                address={togetherFileAddress(study.id, question.id, format, inOne)}
                isPage={false}
              />
            ))}
          </Menu>
        </span>
      </div>
      {codes.length < 2 ? (
        <EmptyState title={togetherViewTexts.noTwoCodesYet}>
          <p>{togetherViewTexts.whenSettledAnswersMention}</p>
        </EmptyState>
      ) : (
        <div className="list overflow-x-auto px-6 pb-8 max-sm:px-3">
          {form === 'list' ? (
            <TogetherList codes={together.data.codes} codebook={codebook} onPair={openPair} />
          ) : (
            <TogetherGrid
              codes={codes}
              weighted={together.data.weighted}
              measure={measure}
              codebook={codebook}
              onPair={openPair}
            />
          )}
          <p className="mt-4 max-w-prose text-[13px] text-soft">
            {togetherViewTexts.counts(ruleNames[together.data.counts])}
            {inOne === 'line' && togetherViewTexts.line}
            {together.data.weighted && togetherViewTexts.weighted}
            {together.data.weighted && form === 'grid' && togetherViewTexts.unweightedNumberShows}
            {form === 'grid'
              ? togetherViewTexts.darkerCellMoreStands
              : togetherViewTexts.listAbout}{' '}
            <Term of="jaccard">{togetherViewTexts.jaccard}</Term>{' '}
            {togetherViewTexts.n1901PhiYule1912}
            <Term of="lift">{togetherViewTexts.lift}</Term> {togetherViewTexts.descriptionsTests}
          </p>
        </div>
      )}
    </>
  );
}
