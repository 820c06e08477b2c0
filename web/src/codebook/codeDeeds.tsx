import { useState } from 'react';
import { useNavigate } from 'react-router';
import {
  useChangeCodebook,
  useCodeImpact,
  type CodebookChange,
  type DrawnCode,
  type DrawnCodebook,
} from '../data/codebook.js';
import { Button } from '../parts/button.js';
import { ProblemNote } from '../parts/notices.js';
import { CodePicker } from '../parts/codePicker.js';
import { codeDeedsTexts } from './texts.js';

type Deed = { do: 'merge'; into: DrawnCode } | { do: 'remove' };

/** Merging, splitting, moving aside and removing; what would be affected is said in numbers first. */
export function CodeDeeds({
  study,
  code,
  codebook,
  onGone,
}: {
  study: number;
  code: DrawnCode;
  codebook: DrawnCodebook;
  onGone: () => void;
}) {
  const change = useChangeCodebook(study);
  const navigate = useNavigate();
  const [deed, setDeed] = useState<Deed | null>(null);
  const does = (what: CodebookChange, goes: boolean) =>
    change.mutate(what, {
      onSuccess: () => {
        setDeed(null);
        if (goes) onGone();
      },
    });
  return (
    <section
      aria-label={codeDeedsTexts.what}
      className="flex flex-col gap-3 border-t border-rule pt-4"
    >
      <div className="flex flex-wrap items-center gap-2">
        <CodePicker
          label={codeDeedsTexts.mergeInto}
          placeholder={codeDeedsTexts.mergeInto2}
          codes={codebook.codes.filter((one) => one.id !== code.id)}
          onPick={(into) => setDeed({ do: 'merge', into })}
        />
        <Button
          disabled={code.mentions < 2}
          onClick={() => void navigate(`/studies/${study}/codebook/split/${code.id}`)}
        >
          {codeDeedsTexts.split}
        </Button>
        <Button onClick={() => does({ do: 'codeToTheme', id: code.id }, code.mentions === 0)}>
          {codeDeedsTexts.makeTheme}
        </Button>
        <Button
          onClick={() =>
            does(
              {
                do: 'editCode',
                id: code.id,
                edit: { from: { archived: code.archived }, to: { archived: !code.archived } },
              },
              false,
            )
          }
        >
          {code.archived ? codeDeedsTexts.bringBack : codeDeedsTexts.archive}
        </Button>
        <Button look="grave" onClick={() => setDeed({ do: 'remove' })}>
          {codeDeedsTexts.remove}
        </Button>
      </div>
      {change.isError && <ProblemNote error={change.error} />}
      {deed && (
        <Impact study={study} code={code} deed={deed}>
          <Button
            look={deed.do === 'remove' ? 'grave' : 'main'}
            onClick={() =>
              does(
                deed.do === 'merge'
                  ? { do: 'mergeCode', id: code.id, into: deed.into.id }
                  : { do: 'removeCode', code },
                true,
              )
            }
          >
            {deed.do === 'merge'
              ? codeDeedsTexts.mergeInto3(deed.into.name)
              : codeDeedsTexts.remove2(code.name)}
          </Button>
          <Button look="bare" onClick={() => setDeed(null)}>
            {codeDeedsTexts.cancel}
          </Button>
        </Impact>
      )}
    </section>
  );
}

/** What a merge or removal would do, in numbers. */
function Impact({
  study,
  code,
  deed,
  children,
}: {
  study: number;
  code: DrawnCode;
  deed: Deed;
  children: React.ReactNode;
}) {
  const impact = useCodeImpact(study, code.id, deed.do === 'merge' ? deed.into.id : null);
  if (impact.isError) return <ProblemNote error={impact.error} />;
  if (!impact.data) return <p className="text-soft">{codeDeedsTexts.countingWhatHangs}</p>;
  const { mentions, people, double, suggestions } = impact.data;
  const hanging = codeDeedsTexts.by(
    codeDeedsTexts.mentionCounted(mentions),
    codeDeedsTexts.peopleCounted(people),
  );
  return (
    <div role="status" className="flex flex-col gap-2 rounded border border-rule bg-card p-4">
      <p>
        {deed.do === 'merge'
          ? codeDeedsTexts.goOverGoneText(hanging, deed.into.name, code.name)
          : codeDeedsTexts.goesAnswersStaySettled(code.name, hanging)}
        {double > 0 && codeDeedsTexts.wouldStandTwiceSame(double)}
        {suggestions > 0 && codeDeedsTexts.noLongerOffered(suggestions)}{' '}
        {codeDeedsTexts.ctrlZTakesBack}
      </p>
      <div className="flex gap-2">{children}</div>
    </div>
  );
}
