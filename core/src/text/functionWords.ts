/** English function words that say nothing of a topic; the researcher sets others aside. */
const functionWords = new Set(
  `a about after all also am an and any are as at be because been before being but by can could
  did do does doing done don't each even ever for from get gets getting go going got had has have
  having he her here him his how i i'd i'll i'm i've if in into is isn't it it's its just like made
  make makes me more most much my no not of off on once one only or other our out over own really
  said same she should so some still such than that that's the their them then there there's these
  they they're this those to too up us use used very was wasn't we we're we've were what when where
  which while who why will with would you you're your`.split(/\s+/u),
);

/** Whether a word says nothing of a topic by itself. */
export const isFunctionWord = (form: string): boolean =>
  functionWords.has(form) || !/\p{L}{2}|\p{Lo}/u.test(form);
