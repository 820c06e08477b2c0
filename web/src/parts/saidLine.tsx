import type { MentionOfCode } from '@yellow-thread/contract';
import { Link } from 'react-router';
import { Passage } from './passage.js';
import type { Look } from '../lib/stitches.js';

/** What somebody said that a code was given to, and who it was; the id leads to the answer. */
export const SaidLine = ({
  mention: { text, start, end, externalId },
  look,
  to,
}: {
  mention: MentionOfCode;
  look: Look;
  to: string;
}) => (
  <>
    <p className="voice min-w-0 flex-1">
      <Passage text={text} start={start} end={end} look={look} />
    </p>
    <Link className="shrink-0 text-[13px] text-soft underline" to={to}>
      {externalId}
    </Link>
  </>
);
