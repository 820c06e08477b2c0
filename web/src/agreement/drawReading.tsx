import type { ListedReading } from '@yellow-thread/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useDrawReading } from '../data/agreement.js';
import { useMembers, useSession } from '../data/people.js';
import { useRestriction } from '../data/restriction.js';
import { useStudyLocation } from '../frame/studyLocation.js';
import { Button } from '../parts/button.js';
import { Choice, Field } from '../parts/field.js';
import { ProblemNote } from '../parts/notices.js';
import { drawReadingTexts } from './texts.js';

const MOST = 500;

/** Draws settled answers for somebody to code once more. */
export function DrawReading({ readings }: { readings: ListedReading[] }) {
  const { study, question } = useStudyLocation();
  const { settled } = question;
  const within = useRestriction(study.id);
  const members = useMembers(study.id).data?.members ?? [];
  const me = useSession().data?.account?.id;
  const draw = useDrawReading(study.id, question.id);
  const navigate = useNavigate();
  const [chosen, setReader] = useState<number | null>(null);
  const [like, setLike] = useState('');
  // while one looks at a group only, how many there are of everybody is not known here
  const most = within === null ? Math.min(settled, MOST) : MOST;
  const [size, setSize] = useState(() => Math.min(most, Math.max(50, Math.round(settled / 10))));
  const others = members.filter(({ id }) => id !== me);
  const readerId = chosen ?? others[0]?.id ?? me ?? 0;
  const same = readings.find(({ id }) => id === like);
  if (settled === 0 && within === null)
    return (
      <p className="max-w-prose">
        {drawReadingTexts.noAnswerSettledYet}
        <Link to="../code" relative="path" className="underline">
          {drawReadingTexts.codeSomeAnswersFirst}
        </Link>
      </p>
    );
  return (
    <section className="max-w-4xl" aria-labelledby="draw-reading">
      <h2 id="draw-reading">{drawReadingTexts.drawOne}</h2>
      <form
        className="mt-3 flex flex-col items-start gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          const id = crypto.randomUUID();
          draw.mutate(
            { id, readerId, size: same?.size ?? size, like: same?.id ?? null },
            { onSuccess: () => readerId === me && void navigate(id) },
          );
        }}
      >
        <Choice
          label={drawReadingTexts.codedOnceMore}
          value={readerId}
          onChange={(event) => setReader(Number(event.target.value))}
        >
          {members.map(({ id, name }) => (
            <option key={id} value={id}>
              {id === me ? `${name} (you)` : name}
            </option>
          ))}
        </Choice>
        {others.length === 0 && (
          <p className="max-w-prose text-soft">
            {drawReadingTexts.nobodyElseWorksStudy}
            <Link to={`/studies/${study.id}/team`} className="underline">
              {drawReadingTexts.inviteSomebody}
            </Link>
            .
          </p>
        )}
        {readings.length > 0 && (
          <Choice
            label={drawReadingTexts.whichAnswers}
            value={like}
            onChange={(event) => setLike(event.target.value)}
          >
            <option value="">{drawReadingTexts.drawnRandom}</option>
            {readings.map((one) => (
              <option key={one.id} value={one.id}>
                {drawReadingTexts.same(one.size, one.reader, one.drawnAt)}
              </option>
            ))}
          </Choice>
        )}
        {!same && (
          <Field
            label={drawReadingTexts.howMany}
            type="number"
            min={1}
            max={most}
            required
            hint={
              within === null
                ? drawReadingTexts.somebodyElseSettledCome(settled)
                : drawReadingTexts.drawnEverybodysSettledAnswers
            }
            value={size}
            onChange={(event) => setSize(Number(event.target.value))}
          />
        )}
        <Button type="submit" look="main" disabled={draw.isPending || size < 1}>
          {drawReadingTexts.draw(same?.size, size)}
        </Button>
        {draw.error && <ProblemNote error={draw.error} />}
      </form>
    </section>
  );
}
