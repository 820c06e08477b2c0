import type { ColumnSetting, SheetSettings, StudyDetail, Writing } from '@yellow-thread/contract';
import { closedNames, wordingsOf } from '@yellow-thread/core/sheet';
import { Choice } from '../parts/field.js';
import { columnTableTexts } from './texts.js';
import { writingsOf } from './writings.js';

interface DetailsProps {
  study: StudyDetail;
  settings: SheetSettings;
  head: string;
  setting: ColumnSetting;
  values: readonly string[];
  set: (part: Partial<ColumnSetting>) => void;
}

const small = 'mt-1 w-full text-[13px]';

/** What else must be known about a column in its role. */
export function ColumnDetails(props: DetailsProps) {
  switch (props.setting.role) {
    case 'question':
      return <QuestionDetails {...props} />;
    case 'codes':
      return <CodesDetails {...props} />;
    case 'choices':
      return <ChoicesDetails {...props} />;
    default:
      return <BackgroundDetails {...props} />;
  }
}

const Separators = () => (
  <>
    <option value=";">{columnTableTexts.separated}</option>
    <option value=",">{columnTableTexts.separated2}</option>
    <option value="|">{columnTableTexts.separated3}</option>
  </>
);

function QuestionDetails({ study, settings, head, setting: { name, of }, set }: DetailsProps) {
  const known = study.questions.map((question) => question.wording);
  const others = [...new Set([...wordingsOf(settings), ...known, head])].filter(
    (wording) => wording !== head,
  );
  const closed = closedNames(settings);
  return (
    <>
      {others.length > 0 && (
        <Choice
          label={columnTableTexts.whichQuestionBelongs(head)}
          hideLabel
          className={small}
          value={name}
          onChange={(event) => set({ name: event.target.value })}
        >
          <option value={head}>
            {known.includes(head) ? columnTableTexts.studysQuestion : columnTableTexts.questionOwn}
          </option>
          {others.map((wording) => (
            <option key={wording} value={wording}>
              {wording === name ? '' : columnTableTexts.part}
              {wording}
            </option>
          ))}
        </Choice>
      )}
      {closed.length > 0 && (of !== '' || /other|specify|sonst|autre/iu.test(head)) && (
        <Choice
          label={columnTableTexts.whichClosedQuestionBelongs(head)}
          hideLabel
          className={small}
          value={of}
          onChange={(event) => set({ of: event.target.value })}
        >
          <option value="">{columnTableTexts.askedEverybody}</option>
          {closed.map((variable) => (
            <option key={variable} value={variable}>
              {columnTableTexts.whatOther(variable)}
            </option>
          ))}
        </Choice>
      )}
    </>
  );
}

function CodesDetails({ settings, head, setting: { name, separator }, set }: DetailsProps) {
  return (
    <>
      <Choice
        label={columnTableTexts.whichQuestionCodesGiven(head)}
        hideLabel
        className={small}
        value={name}
        onChange={(event) => set({ name: event.target.value })}
      >
        {wordingsOf(settings).map((wording) => (
          <option key={wording} value={wording}>
            {columnTableTexts.for(wording)}
          </option>
        ))}
      </Choice>
      <Choice
        label={columnTableTexts.howHoldsCodes(head)}
        hideLabel
        className={small}
        value={separator}
        onChange={(event) => set({ separator: event.target.value })}
      >
        <option value="">{columnTableTexts.oneCode01}</option>
        <Separators />
      </Choice>
    </>
  );
}

function ChoicesDetails({ head, setting: { separator }, set }: DetailsProps) {
  return (
    <Choice
      label={columnTableTexts.whatPartsChoices(head)}
      hideLabel
      className={small}
      value={separator}
      onChange={(event) => set({ separator: event.target.value })}
    >
      <Separators />
    </Choice>
  );
}

function BackgroundDetails({ study, head, setting, values, set }: DetailsProps) {
  const { role, name } = setting;
  const kind = role === 'ticked' ? 'yes_no' : role;
  const known = study.variables.filter((variable) => variable.kind === kind);
  const writings = writingsOf(setting, values);
  return (
    <>
      {writings.length > 0 && (
        <Choice
          label={columnTableTexts.howWritten(head)}
          hideLabel
          className={small}
          value={setting.writing}
          onChange={(event) => set({ writing: event.target.value as Writing })}
        >
          {writings.map(({ writing, name: its }) => (
            <option key={writing} value={writing}>
              {its}
            </option>
          ))}
        </Choice>
      )}
      {known.length > 0 && (
        <Choice
          label={columnTableTexts.whichVariable(head)}
          hideLabel
          className={small}
          value={name}
          onChange={(event) => set({ name: event.target.value })}
        >
          {!known.some((variable) => variable.name === head) && (
            <option value={head}>{columnTableTexts.newVariable}</option>
          )}
          {known.map((variable) => (
            <option key={variable.id} value={variable.name}>
              {columnTableTexts.studys(variable.name)}
            </option>
          ))}
        </Choice>
      )}
    </>
  );
}
