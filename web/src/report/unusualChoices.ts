import { USUAL_LIMITS, type TableChoice } from './tableChoice.js';
import { barScales, cellKinds, orderNames, rowNames, testNames, unusualTexts } from './texts.js';

/** How a table differs from the usual one, in a few words each; what stands beside the button is left out. */
export function unusualChoices(choice: TableChoice): string[] {
  const { rows, order, cells, bars, questions, test, against, level, difference } = choice;
  const said: (string | false)[] = [
    rows !== 'book' && rowNames[rows],
    order !== 'frequency' && orderNames[order],
    choice.chosen.length > 0 && unusualTexts.someCodes,
    choice.empty === 'hidden' && unusualTexts.emptyHidden,
    questions === 'all' && unusualTexts.anyQuestion,
    difference !== undefined && unusualTexts.difference,
    choice.estimated && unusualTexts.estimated,
    cells !== 'percent' && cellKinds[cells],
    bars !== 'table' && unusualTexts.bars(barScales[bars]),
    choice.decimals !== 'fitting' && unusualTexts.decimals(choice.decimals),
    choice.interval && unusualTexts.intervals,
    test !== 'holm' && testNames[test],
    test !== 'off' && against === 'rest' && unusualTexts.againstRest,
    level !== '95' && unusualTexts.level(level),
    (choice.low !== USUAL_LIMITS.low || choice.lowest !== USUAL_LIMITS.lowest) &&
      unusualTexts.lowBases,
  ];
  return said.filter((one) => one !== false);
}
