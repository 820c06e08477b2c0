import { stitchImage, type Look } from '../lib/stitches.js';

const AROUND = 60;

/** A passage with a few words around it, stitched; the whole answer where it rests on all of it. */
export function Passage({
  text,
  start,
  end,
  look,
}: {
  text: string;
  start: number | null;
  end: number | null;
  look: Look;
}) {
  if (start === null || end === null) return text;
  const from = start <= AROUND ? 0 : text.indexOf(' ', start - AROUND) + 1;
  const behind = text.length - end <= AROUND ? text.length : text.lastIndexOf(' ', end + AROUND);
  return (
    <>
      <span className="text-soft">
        {from > 0 && '… '}
        {text.slice(Math.min(from, start), start)}
      </span>
      <span
        className="box-decoration-clone bg-repeat-x pb-1"
        style={{ backgroundImage: stitchImage(look), backgroundPosition: 'left bottom' }}
      >
        {text.slice(start, end)}
      </span>
      <span className="text-soft">
        {text.slice(end, Math.max(end, behind))}
        {behind < text.length && ' …'}
      </span>
    </>
  );
}
