import type { Saturation } from '@yellow-thread/contract';
import {
  RARE_NEW_CODES,
  SATURATION_BASE as BASE,
  SATURATION_RUN as RUN,
  SATURATION_UNIT as UNIT,
} from '@yellow-thread/core/codebook';
import { saturationChartTexts } from './texts.js';

/** New codes per further ten answers, and in a sentence whether to go on opening codes. */
export function SaturationChart({ saturation }: { saturation: Saturation }) {
  const { newCodes, answers } = saturation;
  if (newCodes.length < 2)
    return (
      <p className="text-[13px] text-soft">{saturationChartTexts.afterTwentySettledAnswers}</p>
    );
  const most = Math.max(1, ...newCodes);
  const width = 380 / newCodes.length;
  return (
    <figure aria-label={saturationChartTexts.newCodes} className="border-t border-rule pt-4">
      <figcaption className="mb-2 font-medium">
        {saturationChartTexts.newCodesPerFurther}
      </figcaption>
      <svg
        role="img"
        aria-label={saturationChartTexts.newCodesEachTen(answers, newCodes.join(', '))}
        viewBox="0 0 400 96"
        className="w-full"
      >
        {newCodes.map((count, i) => {
          const height = (56 * count) / most;
          return (
            <g key={i}>
              <rect
                x={10 + i * width + 1}
                y={72 - height}
                width={Math.max(1, width - 2)}
                height={height}
                className="fill-soft"
              />
              {(newCodes.length <= 16 || i % 5 === 0) && (
                <text
                  x={10 + (i + 0.5) * width}
                  y={Math.max(10, 68 - height)}
                  textAnchor="middle"
                  className="figures fill-soft text-[11px]"
                >
                  {count}
                </text>
              )}
            </g>
          );
        })}
        <path d="M10 72.5H390" className="stroke-rule" />
        <text x="10" y="88" className="fill-soft text-[11px]">
          {saturationChartTexts.firstAnswers}
        </text>
        <text x="390" y="88" textAnchor="end" className="fill-soft text-[11px]">
          {saturationChartTexts.latest(answers)}
        </text>
      </svg>
      <p className="mt-2">{verdict(saturation)}</p>
    </figure>
  );
}

function verdict({ last, codes, richness, newCodes }: Saturation): string {
  const atLeast = Math.round(richness.estimate);
  const unseen = atLeast > codes ? saturationChartTexts.howManyCodesGiven(atLeast, codes) : '';
  if (!last)
    return saturationChartTexts.farAfterMoreAnswers({
      codes,
      unit: UNIT,
      base: BASE,
      run: RUN,
      newCodes: newCodes.length,
    });
  const share = saturationChartTexts.whatFirstBrought(last.ratio, UNIT, BASE);
  return last.ratio <= RARE_NEW_CODES
    ? saturationChartTexts.lastAnswersBroughtNew({
        unit: UNIT,
        run: RUN,
        value: last.new,
        share,
        unseen,
      })
    : saturationChartTexts.lastAnswersBroughtNewCodes({
        unit: UNIT,
        run: RUN,
        value: last.new,
        share,
        unseen,
      });
}
