/** How an answer was coded by two, and what was decided where they differ. */
export interface CodedTwice {
  firstCodes: string[];
  secondCodes: string[] | null;
  /** By code: whether it applies after all. */
  verdicts: Record<string, boolean>;
}

/** The same with some codes merged into another: several of them on one answer become one. */
export function replaceCodes<A extends CodedTwice>(
  answer: A,
  codes: readonly string[],
  by: string,
): A {
  const replaced = (given: string[]) => [
    ...new Set(given.map((code) => (codes.includes(code) ? by : code))),
  ];
  const verdicts: Record<string, boolean> = {};
  for (const [code, applies] of Object.entries(answer.verdicts)) {
    const kept = codes.includes(code) ? by : code;
    // a code applies where one of those that it was made of does
    verdicts[kept] = applies || (verdicts[kept] ?? false);
  }
  return {
    ...answer,
    firstCodes: replaced(answer.firstCodes),
    secondCodes: answer.secondCodes && replaced(answer.secondCodes),
    verdicts,
  };
}
