import { stitchImage, type Look } from '../lib/stitches.js';

/** A short run of a theme's stitch, as its mark beside a name. */
export function StitchMark({ look, width = 24 }: { look: Look; width?: number }) {
  return (
    <span
      aria-hidden
      className="inline-block h-1.5 shrink-0 bg-repeat-x align-middle"
      style={{ width, backgroundImage: stitchImage(look) }}
    />
  );
}

/** A bar sewn in a theme's stitch on a pale ground of its ink; `share` of the width that it may have. */
export function StitchBar({ look, share }: { look: Look; share: number }) {
  return (
    <span aria-hidden className="relative block h-2.5 w-full">
      <span
        className="absolute inset-y-0 left-0 block"
        style={{
          width: `${100 * share}%`,
          minWidth: share > 0 ? 2 : 0,
          borderLeft: share > 0 ? `2px solid ${look.ink}` : undefined,
          backgroundColor: `${look.ink}1c`,
          backgroundImage: stitchImage(look),
          backgroundRepeat: 'repeat-x',
          backgroundPosition: '2px center',
        }}
      />
    </span>
  );
}
