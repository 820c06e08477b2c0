import type { Checked, CheckSide, Question, StudyDetail } from '@yellow-thread/contract';
import { wilsonInterval } from '@yellow-thread/core/statistics';
import { useState } from 'react';
import { Link } from 'react-router';
import type { DrawnCode } from '../data/codebook.js';
import { useChecks, useDrawCheck, useReopenBulk } from '../data/review.js';
import { Button } from '../parts/button.js';
import { Choice } from '../parts/field.js';
import { PageProblem, ProblemNote, Waiting } from '../parts/notices.js';
import { asShare } from '../lib/numbers.js';
import { ShareRange } from '../parts/range.js';
import { spotChecksTexts } from './texts.js';

const sizes = [25, 50, 100, 200];
const sides: readonly CheckSide[] = ['accepted', 'refused'];

/** Spot checks of one code: what was found, and drawing another. */
export function SpotChecks({
  code,
  study,
  question,
}: {
  code: DrawnCode;
  study: StudyDetail;
  question: Question;
}) {
  const checks = useChecks(study.id, question.id, code.id);
  if (checks.isError) return <PageProblem error={checks.error} />;
  if (!checks.data) return <Waiting what={spotChecksTexts.spotChecks} />;
  const place = { code, study: study.id, question: question.id };
  return (
    <div className="flex flex-col gap-6">
      <p>{spotChecksTexts.randomFewWhatDecided}</p>
      {sides.map((side) => (
        <DrawCheck key={side} side={side} unread={checks.data.unread[side]} {...place} />
      ))}
      {checks.data.checks.map((check) => (
        <CheckFound
          key={check.id}
          check={check}
          unread={checks.data.unread[check.side]}
          {...place}
        />
      ))}
    </div>
  );
}

interface CheckPlace {
  code: DrawnCode;
  study: number;
  question: number;
}

/** Where a check is read. */
const checkPath = ({ code, study, question }: CheckPlace, check: string) =>
  `/studies/${study}/questions/${question}/review/${code.id}?check=${check}`;

function DrawCheck({ side, unread, ...place }: CheckPlace & { side: CheckSide; unread: number }) {
  const draw = useDrawCheck(place.study, place.question, place.code.id);
  const [size, setSize] = useState(50);
  const [drawn, setDrawn] = useState<string | null>(null);
  if (unread === 0) return null;
  const wanted = Math.min(size, unread);
  // what it would be at nine in ten right: the size is chosen before anybody knows
  const [low, high] = wilsonInterval(side === 'accepted' ? 0.9 : 0.1, wanted);
  return (
    <section className="rounded border border-rule p-4">
      <h2>
        {side === 'accepted' ? spotChecksTexts.whatAcceptedBulk : spotChecksTexts.whatRefusedBulk}
      </h2>
      <p className="text-soft">
        {spotChecksTexts.nobodyRead(unread)}
        {side === 'refused' && spotChecksTexts.howManyMentionAfter}.
      </p>
      <div className="mt-2 flex items-center gap-3">
        <Choice
          label={spotChecksTexts.read}
          aria-label={spotChecksTexts.howManyRead(side)}
          value={size}
          onChange={(event) => setSize(Number(event.target.value))}
        >
          {sizes.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </Choice>
        <span className="figures text-[13px] text-soft">{spotChecksTexts.to(side, low, high)}</span>
        <Button
          look="main"
          className="ml-auto"
          disabled={draw.isPending}
          onClick={() => {
            const id = crypto.randomUUID();
            draw.mutate({ id, side, size: wanted }, { onSuccess: () => setDrawn(id) });
          }}
        >
          {spotChecksTexts.draw(wanted)}
        </Button>
      </div>
      {draw.error && <ProblemNote error={draw.error} />}
      {drawn && (
        <p className="mt-2">
          {spotChecksTexts.drawn}
          <Link to={checkPath(place, drawn)} className="underline">
            {spotChecksTexts.readThem}
          </Link>
        </p>
      )}
    </section>
  );
}

function CheckFound({ check, unread, ...place }: CheckPlace & { check: Checked; unread: number }) {
  const reopen = useReopenBulk(place.study, place.question, place.code.id);
  const { side, size, drawnFrom, applies, not, unsure, found, expected, isWorse } = check;
  const read = applies + not + unsure;
  const name = side === 'accepted' ? 'right' : 'missed';
  const changed = side === 'accepted' ? not : applies;
  return (
    <section className="border-t border-rule pt-3">
      <h2>{spotChecksTexts.bulk(size, drawnFrom, side)}</h2>
      <p className="text-[13px] text-soft">
        {spotChecksTexts.drawnRead(check.drawnAt, read)}
        {unsure > 0 && spotChecksTexts.unsure(unsure)}
      </p>
      {found && (
        <p className="figures my-1 flex items-center gap-3">
          {name} <ShareRange label={name} value={found.value} interval={found.interval} />
          <span className="text-[13px] text-soft">
            {spotChecksTexts.expected(found.interval.map(asShare).join(' to '), expected)}
          </span>
        </p>
      )}
      {changed > 0 && (
        <p className="text-[13px] text-soft">
          {spotChecksTexts.readingThemFiguresAbove(changed, side)}
        </p>
      )}
      {isWorse && (
        <div role="status" className="my-2 flex items-center gap-3 text-brick">
          <p>
            {side === 'accepted'
              ? spotChecksTexts.clearlyFewerRightModel
              : spotChecksTexts.clearlyMoreMissedModel}
          </p>
          {unread > 0 && (
            <Button
              look="grave"
              className="ml-auto shrink-0"
              disabled={reopen.isPending}
              onClick={() => reopen.mutate(side)}
            >
              {spotChecksTexts.openUnreadAgain(unread)}
            </Button>
          )}
        </div>
      )}
      <Link to={checkPath(place, check.id)} className="underline">
        {read < size ? spotChecksTexts.readLeft(size, read) : spotChecksTexts.readThemAgain}
      </Link>
    </section>
  );
}
